package leveltally.server.ledger;

/** What one account is debited or credited; an empty text where nothing is. */
public record LedgerLineView(String account, String debit, String credit, String currency) {}
