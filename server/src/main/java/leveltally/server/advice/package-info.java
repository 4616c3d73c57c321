/** Remittance advice by mail: whom it is sent to, and what became of it. */
@NullMarked
package leveltally.server.advice;

import org.jspecify.annotations.NullMarked;
