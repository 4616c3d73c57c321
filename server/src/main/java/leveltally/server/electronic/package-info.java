/** Payments that a file for the bank carries. */
@NullMarked
package leveltally.server.electronic;

import org.jspecify.annotations.NullMarked;
