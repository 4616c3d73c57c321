/** What is brought in from files: rows read into values, or refused with column and reason. */
@NullMarked
package leveltally.core.imports;

import org.jspecify.annotations.NullMarked;
