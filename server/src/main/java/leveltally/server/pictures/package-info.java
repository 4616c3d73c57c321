/** Pictures that are drawn on paper: logos and signatures. */
@NullMarked
package leveltally.server.pictures;

import org.jspecify.annotations.NullMarked;
