package leveltally.server.ledger;

import io.swagger.v3.oas.annotations.media.Schema;

/** What one account is debited or credited; an empty text where nothing is. */
@Schema(requiredProperties = {"account", "debit", "credit", "currency"})
public record LedgerLineView(String account, String debit, String credit, String currency) {}
