/** Wires that are ordered at the bank from a list of ours. */
@NullMarked
package leveltally.core.wires;

import org.jspecify.annotations.NullMarked;
