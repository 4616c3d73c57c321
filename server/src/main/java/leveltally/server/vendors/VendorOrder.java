package leveltally.server.vendors;

/** What the list of vendors is sorted by; its name comes after it. */
enum VendorOrder {
    NAME("v.name"),
    NUMBER("v.number"),
    GROUP("v.vendor_group"),
    PRIORITY("v.priority"),
    METHOD("v.method"),
    HELD("v.hold_reason"),
    COUNT("open_count"),
    OPEN("v.currency, open_minor");

    private final String columns;

    VendorOrder(String columns) {
        this.columns = columns;
    }

    String sql(boolean descending) {
        String way = descending ? " DESC" : "";
        return columns.replace(",", way + ",") + way + ", v.name, v.id";
    }
}
