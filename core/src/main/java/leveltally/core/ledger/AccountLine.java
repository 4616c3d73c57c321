package leveltally.core.ledger;

import leveltally.core.money.Money;

/**
 * What of a document goes to one ledger account.
 *
 * @param job the work it was for; empty for none
 */
public record AccountLine(AccountId account, String job, Money amount) {}
