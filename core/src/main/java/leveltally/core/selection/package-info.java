/** Which invoices a batch takes, and why the others are left out. */
@NullMarked
package leveltally.core.selection;

import org.jspecify.annotations.NullMarked;
