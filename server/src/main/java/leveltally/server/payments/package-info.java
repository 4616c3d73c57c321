/** Payments, whatever carries them: what a claim became once it left its batch. */
@NullMarked
package leveltally.server.payments;

import org.jspecify.annotations.NullMarked;
