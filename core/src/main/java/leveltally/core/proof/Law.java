package leveltally.core.proof;

/** The laws that must hold on the live data, whatever happened to it. */
public enum Law {
    L1("Every journal entry balances, per currency"),
    L2("Every open amount is the amount less its settlement rows, between zero and the amount"),
    L3("Every check number exists once and no number is missing"),
    L4("Every payment equals its lines, its cash line in the ledger and its document"),
    L5("Every bank event waits, or is in exactly one file that was not refused"),
    L6("Nothing was numbered or posted without approval of exactly its content"),
    L7("Nobody approved what they prepared or changed, nor two steps of one route"),
    L8("Locked periods stand as they were at the lock"),
    L9("Every invoice is in at most one live claim"),
    L10("The audit trail is unbroken"),
    L11("Open invoices less open credits equal the payables in the ledger"),
    L12("Every electronic payment is in at most one file not refused, and never on paper");

    private final String statement;

    Law(String statement) {
        this.statement = statement;
    }

    public String statement() {
        return statement;
    }
}
