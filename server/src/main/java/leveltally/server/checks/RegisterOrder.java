package leveltally.server.checks;

/** What the register is sorted by; equal ones stand by their number. */
enum RegisterOrder {
    NUMBER("n.number"),
    STATE("n.state"),
    PAYEE("COALESCE(p.payee, '')"),
    CHECK_DATE("COALESCE(p.check_date, DATE '1000-01-01')"),
    AMOUNT("COALESCE(p.amount_minor, -1)");

    private final String value;

    RegisterOrder(String value) {
        this.value = value;
    }

    /** What a row is sorted by. */
    String value() {
        return value;
    }

    String order(boolean descending) {
        String way = descending ? " DESC" : "";
        return value + way + ", n.number" + way + ", n.id" + way;
    }
}
