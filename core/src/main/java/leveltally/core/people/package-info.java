/** Who works here and what each role may do. */
@NullMarked
package leveltally.core.people;

import org.jspecify.annotations.NullMarked;
