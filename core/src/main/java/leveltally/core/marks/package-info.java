/** What about a payment deserves a look before it leaves. */
@NullMarked
package leveltally.core.marks;

import org.jspecify.annotations.NullMarked;
