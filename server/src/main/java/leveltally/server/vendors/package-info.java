/** Vendors and their addresses. */
@NullMarked
package leveltally.server.vendors;

import org.jspecify.annotations.NullMarked;
