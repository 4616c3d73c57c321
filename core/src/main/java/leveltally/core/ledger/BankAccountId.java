package leveltally.core.ledger;

/** A bank account payments leave from. */
public record BankAccountId(long value) {}
