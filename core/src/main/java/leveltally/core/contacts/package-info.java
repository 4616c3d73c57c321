/** Asking payees about checks that they do not present. */
@org.jspecify.annotations.NullMarked
package leveltally.core.contacts;
