package leveltally.server.clearing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.clearing.Answer;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.server.ledger.BankAccount;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What the ledger, a list of paid checks or the bank's debt has already, for movements that are no check. */
@Component
class Matching {
    private static final int MOST = 500;

    private final JdbcClient jdbc;

    Matching(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * Something a movement can be.
     *
     * @param amount as the bank would move it: above zero what comes in
     * @param on from which day the ledger, or the bank, has it
     */
    public record Candidate(MatchKind kind, long of, LocalDate on, String text, Money amount) {}

    /**
     * All there is of an account up to a day, what has the amount of the movement first.
     *
     * <p>Entries on its cash that no movement stands for; what was told of checks and stands on no statement; what the bank
     * owes. Payments that are no checks are among the entries.
     */
    List<Candidate> of(BankAccount account, MovementRows.Told movement) {
        Money amount = movement.says().amount();
        List<Candidate> found = new ArrayList<>(entries(account, amount));
        found.addAll(owed(account.id(), amount));
        if (movement.by() == TheBankSays.STATEMENT) {
            found.addAll(told(account.id(), amount));
        }
        found.sort(
                java.util.Comparator.comparing((Candidate one) -> !one.amount().equals(amount))
                        .thenComparing(Candidate::on, java.util.Comparator.reverseOrder())
                        .thenComparing(Candidate::of));
        return found.stream()
                .filter(one -> one.amount().isPositive() == amount.isPositive())
                .limit(MOST)
                .toList();
    }

    private List<Candidate> entries(BankAccount account, Money amount) {
        return jdbc.sql("""
                        SELECT t.entry_id, t.payment_id, t.text, t.moved_minor, GREATEST(t.ledger_date, COALESCE(
                          (SELECT MAX(u.undone_on) FROM bank_match u WHERE u.entry_id = t.entry_id OR u.payment_id = t.payment_id),
                          t.ledger_date)) AS ledger_date
                        FROM bank_in_transit t
                        WHERE t.bank_account_id = :account ORDER BY t.moved_minor <> :amount, t.ledger_date DESC, t.entry_id LIMIT 500
                        """)
                .param("account", account.id().value())
                .param("amount", amount.minor())
                .query((r, n) -> {
                    Long payment = r.getObject("payment_id", Long.class);
                    return new Candidate(
                            payment == null ? MatchKind.ENTRY : MatchKind.PAYMENT,
                            payment == null ? r.getLong("entry_id") : payment,
                            r.getObject("ledger_date", LocalDate.class),
                            r.getString("text"),
                            Money.ofMinor(r.getLong("moved_minor"), account.currency()));
                })
                .list();
    }

    private List<Candidate> owed(BankAccountId account, Money amount) {
        return jdbc.sql("""
                        SELECT c.id, GREATEST(c.on_day, COALESCE((SELECT MAX(u.undone_on) FROM bank_match u WHERE u.claim_id = c.id),
                          c.on_day)) AS on_day, c.why, m.number_text, -c.amount_minor AS owed_minor, m.currency FROM bank_match c
                        JOIN bank_movement m ON m.id = c.movement_id
                        WHERE c.bank_account_id = :account AND c.kind = 'CLAIM' AND c.undone_on IS NULL
                          AND NOT EXISTS (SELECT 1 FROM bank_match d WHERE d.claim_id = c.id AND d.undone_on IS NULL)
                        ORDER BY c.amount_minor <> -:amount, c.on_day DESC, c.id LIMIT 500
                        """)
                .param("account", account.value())
                .param("amount", amount.minor())
                .query((r, n) -> new Candidate(
                        MatchKind.CORRECTION,
                        r.getLong("id"),
                        r.getObject("on_day", LocalDate.class),
                        ("The bank owes it"
                                + (r.getString("number_text").isEmpty()
                                        ? ""
                                        : " for check " + r.getString("number_text"))
                                + ": " + r.getString("why")),
                        Money.ofMinor(r.getLong("owed_minor"), r.getString("currency"))))
                .list();
    }

    private List<Candidate> told(BankAccountId account, Money amount) {
        return jdbc.sql("""
                        SELECT m.id, m.number_text, m.amount_minor, m.currency, GREATEST(m.bank_date, COALESCE((SELECT MAX(u.undone_on)
                          FROM bank_match u WHERE u.other_movement_id = m.id AND u.kind = 'TOLD'), m.bank_date)) AS bank_date
                        FROM bank_movement m
                        JOIN bank_report r ON r.id = m.report_id AND r.kind <> 'STATEMENT'
                        WHERE m.bank_account_id = :account
                          AND NOT EXISTS (SELECT 1 FROM bank_match t WHERE t.told_id = m.id AND t.told_by = 'STATEMENT')
                          AND NOT EXISTS (SELECT 1 FROM bank_match t WHERE t.movement_id = m.id AND t.told_id IS NOT NULL)
                        ORDER BY m.amount_minor <> :amount, m.bank_date DESC, m.id LIMIT 500
                        """)
                .param("account", account.value())
                .param("amount", amount.minor())
                .query((r, n) -> new Candidate(
                        MatchKind.TOLD,
                        r.getLong("id"),
                        r.getObject("bank_date", LocalDate.class),
                        "Check " + r.getString("number_text") + " on the list of paid checks",
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .list();
    }

    /** @throws Refusal unless all of it is there still, and comes to what the bank moved */
    List<MovementRows.Match> of(BankAccount account, MovementRows.Told movement, List<Answering.MatchedWith> has) {
        if (has.isEmpty()) {
            throw Refusal.invalidField("nothing-to-match", "has", "Choose what the ledger has of it.");
        }
        Map<Answering.MatchedWith, Candidate> known = new HashMap<>();
        of(account, movement).forEach(one -> known.put(new Answering.MatchedWith(one.kind(), one.of()), one));
        List<Candidate> chosen =
                has.stream().distinct().map(one -> mustBeThere(known, one)).toList();
        Money sum = Money.sum(chosen.stream().map(Candidate::amount).toList(), account.currency());
        Money amount = movement.says().amount();
        if (!sum.equals(amount)) {
            throw Refusal.invalidField(
                    "match-differs",
                    "has",
                    "What is chosen comes to " + sum + ", the bank moved " + amount + ". Choose what comes to"
                            + " the same, or enter the difference.");
        }
        return chosen.stream()
                .map(one -> new MovementRows.Match(
                        movement.id(),
                        one.kind(),
                        one.of(),
                        one.amount(),
                        movement.from(one.on()),
                        Answer.MATCH,
                        "",
                        one.kind() == MatchKind.TOLD ? movement.by() : null))
                .collect(Collectors.toList());
    }

    private static Candidate mustBeThere(Map<Answering.MatchedWith, Candidate> known, Answering.MatchedWith wanted) {
        Candidate found = known.get(wanted);
        if (found == null) {
            throw Refusal.conflict("matched-meanwhile", "One of these is matched already, or is gone. Look again.");
        }
        return found;
    }
}
