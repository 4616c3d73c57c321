package leveltally.server.invoices;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.money.Money;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads everything about one document, in as many statements whatever happened to it. */
@Component
class InvoicePages {
    private static final String ENDS = "It ends when its payment is undone.";

    private final JdbcClient jdbc;

    InvoicePages(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    InvoicePage of(long id) {
        List<InvoicePage.SettledRow> settled = new ArrayList<>();
        return jdbc.sql("""
                        SELECT i.*, v.name AS vendor_name, j.file_name, b.name AS reserved, b.state AS batch_state,
                          c.id AS corrected_by, EXISTS (SELECT 1 FROM way_to_pay w WHERE w.issuer_id = i.vendor_id) AS of_issuer
                        FROM invoice i JOIN vendor v ON v.id = i.vendor_id LEFT JOIN import_job j ON j.id = i.import_id
                        LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                        LEFT JOIN invoice c ON c.corrects_id = i.id WHERE i.id = ?
                        """)
                .param(id)
                .query((r, n) -> page(r, settled))
                .optional()
                .orElseThrow(() -> OpenItems.unknown(id));
    }

    private InvoicePage page(ResultSet r, List<InvoicePage.SettledRow> settled) throws SQLException {
        long id = r.getLong("id");
        String currency = r.getString("currency");
        Money amount = Money.ofMinor(r.getLong("amount_minor"), currency);
        Money open = Money.ofMinor(r.getLong("open_minor"), currency);
        Money apart = amount.minus(Money.ofMinor(r.getLong("discountable_minor"), currency));
        InvoiceKind kind = InvoiceKind.valueOf(r.getString("kind"));
        LocalDate cancelled = r.getObject("cancelled_on", LocalDate.class);
        String reserved = r.getString("reserved");
        settled.addAll(settled(id, amount));
        return new InvoicePage(
                id,
                kind.name(),
                kind.words(),
                r.getLong("vendor_id"),
                r.getString("vendor_name"),
                r.getString("reference"),
                r.getObject("invoice_date", LocalDate.class),
                r.getObject("ledger_date", LocalDate.class),
                r.getObject("due_date", LocalDate.class),
                r.getObject("discount_date", LocalDate.class),
                r.getObject("usable_from", LocalDate.class),
                MoneyView.of(amount),
                MoneyView.of(open),
                apart.isZero() ? "" : apart.toString(),
                discount(r),
                state(kind, amount, open, cancelled, reserved, r.getString("hold_reason")),
                r.getLong("remit_to_id"),
                addresses(r.getLong("vendor_id"), r.getLong("remit_to_id")),
                r.getBoolean("own_check"),
                r.getString("hold_reason"),
                r.getString("file_name"),
                r.getObject("corrects_id", Long.class),
                r.getObject("corrected_by", Long.class),
                lines(id, currency),
                settled,
                batches(id),
                notes(id),
                kind == InvoiceKind.PREPAYMENT ? ENDS : cancels(amount, open, cancelled, reserved),
                kind == InvoiceKind.PREPAYMENT
                        ? "It is paid already."
                        : changes(open, cancelled, reserved, r.getString("batch_state")),
                !kind.raises() && open.isPositive() && reserved == null,
                kind == InvoiceKind.PREPAYMENT ? aheadBy(id) : null,
                kind == InvoiceKind.INVOICE && open.isPositive() ? waiting(id) : List.of(),
                kind == InvoiceKind.INVOICE && cancelled == null && r.getBoolean("of_issuer"));
    }

    private static String discount(ResultSet r) throws SQLException {
        LocalDate until = r.getObject("discount_date", LocalDate.class);
        return until == null
                ? ""
                : r.getBigDecimal("discount_rate")
                                .movePointRight(2)
                                .stripTrailingZeros()
                                .toPlainString() + "% until " + Dates.inWords(until);
    }

    private static String state(
            InvoiceKind kind,
            Money amount,
            Money open,
            @Nullable LocalDate cancelled,
            @Nullable String reserved,
            @Nullable String hold) {
        boolean ahead = kind == InvoiceKind.PREPAYMENT;
        String where = cancelled != null
                ? (ahead ? "ended with its payment on " : "cancelled on ") + Dates.inWords(cancelled)
                : open.isZero()
                        ? ahead ? "used up" : "settled"
                        : open.equals(amount)
                                ? ahead ? "waiting for its invoice" : "open"
                                : ahead ? "partly used" : "partly settled";
        return where + (hold == null ? "" : ", held") + (reserved == null ? "" : ", in the batch “" + reserved + "”");
    }

    private static @Nullable String cancels(
            Money amount, Money open, @Nullable LocalDate cancelled, @Nullable String reserved) {
        if (cancelled != null) {
            return "It is cancelled.";
        }
        if (reserved != null) {
            return "It stands in the batch “" + reserved + "”. Take it out there first.";
        }
        return open.equals(amount) ? null : "A part of it is settled. Undo what settled it first, or enter a credit.";
    }

    private static @Nullable String changes(
            Money open, @Nullable LocalDate cancelled, @Nullable String reserved, @Nullable String batchState) {
        if (cancelled != null || open.isZero()) {
            return "Nothing of it is to be paid any more.";
        }
        return batchState == null || BatchState.valueOf(batchState) == BatchState.DRAFT
                ? null
                : "It stands in the batch “" + reserved + "”, which was sent for approval as it is.";
    }

    private InvoicePage.@Nullable AheadBy aheadBy(long id) {
        return jdbc.sql("""
                        SELECT k.method, k.number, k.check_id, k.claim_id, k.batch_id, k.purpose FROM invoice i
                        JOIN claim_line l ON l.id = i.ahead_line_id JOIN payment p ON p.claim_id = l.claim_id
                        JOIN payment_carried k ON k.payment_id = p.id WHERE i.id = ? AND p.posted_entry_id IS NOT NULL
                        """)
                .param(id)
                .query((r, n) -> {
                    boolean check = r.getObject("check_id") != null;
                    return new InvoicePage.AheadBy(
                            (check ? "check " : "") + r.getString("number"),
                            check
                                    ? "/register?series=all&check=" + r.getLong("check_id")
                                    : Purpose.valueOf(r.getString("purpose")).isAfterTheFact()
                                            ? "/outside?at=" + r.getLong("claim_id")
                                            : "/file/" + r.getLong("batch_id") + "?at=" + r.getLong("claim_id"));
                })
                .optional()
                .orElse(null);
    }

    private List<InvoicePage.WaitingAhead> waiting(long id) {
        return jdbc.sql("""
                        SELECT a.id, a.reference, a.open_minor, a.currency, a.usable_from FROM invoice i
                        JOIN invoice a ON a.vendor_id = i.vendor_id AND a.kind = 'PREPAYMENT' AND a.reference = i.reference
                          AND a.currency = i.currency AND a.is_open = 1
                        WHERE i.id = ? ORDER BY a.id
                        """)
                .param(id)
                .query((r, n) -> {
                    LocalDate from = r.getObject("usable_from", LocalDate.class);
                    return new InvoicePage.WaitingAhead(
                            r.getLong("id"),
                            r.getString("reference"),
                            Money.ofMinor(r.getLong("open_minor"), r.getString("currency"))
                                    .toString(),
                            from == null ? "" : Dates.inWords(from));
                })
                .list();
    }

    private List<InvoicePage.InvoiceAddress> addresses(long vendor, long own) {
        return jdbc.sql("SELECT id, CONCAT(payee, ', ', REPLACE(address, '\n', ', ')) AS words FROM remit_to"
                        + " WHERE vendor_id = :vendor AND (in_force OR id = :own) ORDER BY id")
                .param("vendor", vendor)
                .param("own", own)
                .query(InvoicePage.InvoiceAddress.class)
                .list();
    }

    private List<InvoicePage.DocumentLine> lines(long id, String currency) {
        return jdbc.sql("SELECT a.code, a.name, l.amount_minor, l.job FROM invoice_line l"
                        + " JOIN ledger_account a ON a.id = l.account_id WHERE l.invoice_id = ? ORDER BY l.id")
                .param(id)
                .query((r, n) -> new InvoicePage.DocumentLine(
                        r.getString("code"),
                        r.getString("name"),
                        Money.ofMinor(r.getLong("amount_minor"), currency).toString(),
                        r.getString("job") == null ? "" : r.getString("job")))
                .list();
    }

    private List<InvoicePage.SettledRow> settled(long id, Money amount) {
        Money[] open = {amount};
        return jdbc.sql("""
                        SELECT s.ledger_date, s.kind, s.reverses_id, s.amount_minor, s.currency, n.id AS check_id, n.number,
                          o.reference AS offset_reference, o.id AS offset_id, o.undone_at, (SELECT CONCAT(
                            GROUP_CONCAT(x.reference ORDER BY x.id SEPARATOR ', '), '\n', MIN(x.id)) FROM settlement t JOIN invoice x ON x.id = t.invoice_id
                            AND (x.kind = 'INVOICE') <> (own.kind = 'INVOICE')
                            WHERE t.offset_id = s.offset_id AND t.reverses_id IS NULL) AS laid_against, f.id AS refund, f.reference AS refund_reference,
                          f.undone_entry_id, p.payee
                        FROM settlement s JOIN invoice own ON own.id = s.invoice_id LEFT JOIN check_number n ON n.live_payment_id = s.payment_id
                        LEFT JOIN payment p ON p.id = s.payment_id
                        LEFT JOIN credit_offset o ON o.id = s.offset_id
                        LEFT JOIN credit_refund f ON f.settlement_id = COALESCE(s.reverses_id, s.id)
                        WHERE s.invoice_id = ? ORDER BY s.ledger_date, s.id
                        """).param(id).query((r, n) -> settled(r, open)).list();
    }

    private static InvoicePage.SettledRow settled(ResultSet r, Money[] open) throws SQLException {
        Money took = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
        open[0] = open[0].minus(took);
        boolean back = r.getObject("reverses_id") != null;
        Long number = r.getObject("number", Long.class);
        String offset = r.getString("offset_reference");
        String[] against =
                offset == null ? new String[0] : r.getString("laid_against").split("\n");
        String refund = r.getString("refund_reference");
        String words = refund == null
                ? SettlementKind.valueOf(r.getString("kind")).words(back)
                : back ? "Money sent back, taken back" : "Money sent back";
        return new InvoicePage.SettledRow(
                r.getObject("ledger_date", LocalDate.class),
                words,
                number != null
                        ? "check " + number
                        : offset != null ? "offset " + offset + " with " + against[0] : refund != null ? refund : "",
                took.negated().toString(),
                open[0].toString(),
                number != null
                        ? "/register?series=all&check=" + r.getLong("check_id")
                        : offset != null ? "/invoices/" + against[1] : "",
                refund != null && !back && r.getObject("undone_entry_id") == null ? r.getLong("refund") : null,
                offset != null && !back && r.getObject("undone_at") == null ? r.getLong("offset_id") : null);
    }

    private List<InvoicePage.InBatch> batches(long id) {
        return jdbc.sql("""
                        SELECT b.id, b.name, b.state, l.cash_minor, l.currency, n.id AS check_id, n.number
                        FROM claim_line l JOIN claim c ON c.id = l.claim_id JOIN batch b ON b.id = c.batch_id
                        LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN check_number n ON n.live_payment_id = p.id
                        WHERE l.invoice_id = ? ORDER BY b.id
                        """)
                .param(id)
                .query((r, n) -> new InvoicePage.InBatch(
                        r.getLong("id"),
                        r.getString("name"),
                        BatchState.valueOf(r.getString("state")).words(),
                        Money.ofMinor(r.getLong("cash_minor"), r.getString("currency"))
                                .toString(),
                        r.getObject("check_id", Long.class),
                        r.getObject("number", Long.class)))
                .list();
    }

    private List<InvoicePage.NoteRow> notes(long id) {
        return jdbc.sql("SELECT n.at, p.name, n.text FROM invoice_note n JOIN person p ON p.id = n.person_id"
                        + " WHERE n.invoice_id = ? ORDER BY n.at, n.id")
                .param(id)
                .query((r, n) -> new InvoicePage.NoteRow(
                        r.getTimestamp("at").toInstant(), r.getString("name"), r.getString("text")))
                .list();
    }
}
