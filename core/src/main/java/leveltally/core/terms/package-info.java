/** When an invoice is due, and what paying early earns. */
@NullMarked
package leveltally.core.terms;

import org.jspecify.annotations.NullMarked;
