/** Ratios of our deeds against the bare statements that read or write the same rows. */
package leveltally.bench;
