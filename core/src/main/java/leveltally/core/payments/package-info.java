/** Payments and their lives, whatever carries them: paper, a file, or nothing of ours. */
@NullMarked
package leveltally.core.payments;

import org.jspecify.annotations.NullMarked;
