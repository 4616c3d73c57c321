package leveltally.server.outside;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Lists payments made elsewhere, from the day they are recorded on. */
@Component
class OutsideList {
    private static final int MOST_LISTED = 500;

    private final JdbcClient jdbc;

    OutsideList(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * @param text part of the number or the payee; empty for all
     * @param way null for every way
     */
    @Transactional(readOnly = true)
    OutsideListed of(String text, @Nullable Long way, @Nullable LocalDate from, @Nullable LocalDate to) {
        String like =
                "%" + text.strip().replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        List<Money> amounts = new ArrayList<>();
        List<OutsideListed.ListedOutside> rows = jdbc.sql("""
                        SELECT c.id AS claim, p.id AS payment, k.id AS check_id, w.method, o.number, a.name AS account, c.payee,
                          c.vendor_id AS vendor, b.check_date, p.ledger_date, c.amount_minor, c.currency, p.state AS payment_state,
                          b.state AS batch_state, b.id AS batch, b.name AS batch_name, m.invoice_id AS statement,
                          i.reference AS statement_reference
                        FROM batch b JOIN standing_claim c ON c.batch_id = b.id JOIN outside_entry o ON o.claim_id = c.id
                        JOIN way_to_pay w ON w.id = b.way_id JOIN bank_account a ON a.id = b.bank_account_id
                        LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN check_number k ON k.live_payment_id = p.id
                        LEFT JOIN card_match m ON m.payment_id = p.id LEFT JOIN invoice i ON i.id = m.invoice_id
                        WHERE b.purpose = :outside AND b.state <> :withdrawn AND (:way IS NULL OR b.way_id = :way)
                          AND (:from IS NULL OR b.check_date >= :from) AND (:to IS NULL OR b.check_date <= :to)
                          AND (o.number LIKE :like OR c.payee LIKE :like)
                        ORDER BY b.check_date DESC, b.id DESC, c.id DESC LIMIT :most
                        """)
                .param("outside", Purpose.OUTSIDE.name())
                .param("withdrawn", BatchState.WITHDRAWN.name())
                .param("way", way)
                .param("from", from)
                .param("to", to)
                .param("like", like)
                .param("most", MOST_LISTED + 1)
                .query((r, n) -> {
                    String state = r.getString("payment_state");
                    PaymentState of = state == null ? null : PaymentState.valueOf(state);
                    amounts.add(Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")));
                    return new OutsideListed.ListedOutside(
                            r.getLong("claim"),
                            r.getObject("payment", Long.class),
                            r.getObject("check_id", Long.class),
                            PaymentMethod.valueOf(r.getString("method")).words(),
                            r.getString("number"),
                            r.getString("account"),
                            r.getString("payee"),
                            r.getLong("vendor"),
                            r.getObject("check_date", LocalDate.class),
                            r.getObject("ledger_date", LocalDate.class),
                            MoneyView.of(amounts.get(n)),
                            of == null
                                    ? BatchState.valueOf(r.getString("batch_state"))
                                            .words()
                                    : of.words(),
                            of != null && of.isInTheLedger(),
                            of == PaymentState.VOIDED || of == PaymentState.REVERSED,
                            r.getLong("batch"),
                            r.getString("batch_name"),
                            r.getObject("statement", Long.class),
                            r.getString("statement_reference"));
                })
                .list();
        List<OutsideListed.ListedOutside> shown = rows.subList(0, Math.min(MOST_LISTED, rows.size()));
        Map<String, Money> sums = new TreeMap<>();
        for (int i = 0; i < shown.size(); i++) {
            if (!shown.get(i).undone()) {
                sums.merge(shown.get(i).amount().currency(), amounts.get(i), Money::plus);
            }
        }
        return new OutsideListed(
                shown, sums.values().stream().map(MoneyView::of).toList(), rows.size() > shown.size());
    }
}
