package leveltally.core.imports;

import java.util.List;

/**
 * One documented column.
 *
 * @param about what stands in it, for the page that explains the file
 */
public record Column(String name, boolean required, String about, String example) {
    public static final List<Column> INVOICES = List.of(
            new Column("vendor", true, "the vendor's number", "V1014"),
            new Column("reference", true, "the vendor's own reference, at most 40 characters", "BF-2219"),
            new Column("kind", false, "invoice or credit; empty for an invoice", "invoice"),
            new Column("invoice_date", true, "year-month-day", "2026-11-03"),
            new Column("ledger_date", false, "year-month-day; empty for the invoice date", ""),
            new Column("terms", false, "the document's own, such as 2% 10, net 30; empty for the vendor's", ""),
            new Column("due_date", false, "year-month-day; empty for what the terms make of its date", ""),
            new Column(
                    "amount",
                    true,
                    "of this line, below zero for an allowance; with a point before the cents unless you choose the comma",
                    "1250.00"),
            new Column("account", true, "the ledger account's code", "5300"),
            new Column("job", false, "the job it belongs to", ""),
            new Column(
                    "not_discountable",
                    false,
                    "what of this line earns no discount, such as freight; every line's counts",
                    "50.00"),
            new Column("own_check", false, "yes when it must be paid by itself", "no"),
            new Column("usable_from", false, "a credit cannot be used before this day", ""),
            new Column("currency", false, "three letters (ISO 4217); empty for the vendor's usual one", ""));

    public static final List<Column> VENDORS = List.of(
            new Column("number", true, "the vendor's number, at most 12 characters", "V2001"),
            new Column("name", true, "at most 120 characters", "Samphire Rope Store"),
            new Column("group", false, "the vendor group", "Chandlery"),
            new Column("priority", false, "1 is paid before 9; empty for 5", "3"),
            new Column("method", false, "check or credit transfer; empty for check", "check"),
            new Column("currency", true, "three letters (ISO 4217)", "USD"),
            new Column("terms", true, "such as net 30, or 2% 10, net 30", "2% 10, net 30"),
            new Column("address", true, "lines separated by semicolons", "7 Slipway Road; Skerrow 4711"),
            new Column("postal_code", false, "for the order of checks", "4711"));
}
