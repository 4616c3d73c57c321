/** The rules of accounts payable: plain values in, decisions out. */
@NullMarked
package leveltally.core;

import org.jspecify.annotations.NullMarked;
