/** Payments that go to the bank in a file: their records, and what banks answer. */
@NullMarked
package leveltally.core.electronic;

import org.jspecify.annotations.NullMarked;
