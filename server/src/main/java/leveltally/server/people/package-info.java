/** Who signs in. */
@NullMarked
package leveltally.server.people;

import org.jspecify.annotations.NullMarked;
