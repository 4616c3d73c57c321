/** Files for the bank, described by data. */
@NullMarked
package leveltally.core.bankfiles;

import org.jspecify.annotations.NullMarked;
