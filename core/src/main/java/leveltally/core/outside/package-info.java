/** Payments made elsewhere and recorded here: hand-written checks, wires, payments by company card. */
@org.jspecify.annotations.NullMarked
package leveltally.core.outside;
