/** The company we pay for, and its policies. */
@NullMarked
package leveltally.server.company;

import org.jspecify.annotations.NullMarked;
