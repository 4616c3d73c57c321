package leveltally.core.imports;

/** Why a row cannot come in: which column is at fault, and the reason as a sentence. */
public record Finding(String column, String reason) {}
