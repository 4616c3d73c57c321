/** The company we pay for, and what it decided once for all. */
@NullMarked
package leveltally.core.company;

import org.jspecify.annotations.NullMarked;
