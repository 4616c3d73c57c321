/** What a company needs before it can pay. */
@NullMarked
package leveltally.core.setup;

import org.jspecify.annotations.NullMarked;
