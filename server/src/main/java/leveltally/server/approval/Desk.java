package leveltally.server.approval;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What waits for approval; a fixed number of statements, however much waits. */
@Component
class Desk {
    private final JdbcClient jdbc;
    private final Rounds rounds;
    private final Deputies deputies;

    Desk(JdbcClient jdbc, Rounds rounds, Deputies deputies) {
        this.jdbc = jdbc;
        this.rounds = rounds;
        this.deputies = deputies;
    }

    private static final int MOST_WAITING = 300;

    @Transactional(readOnly = true)
    DeskView of(Actor by) {
        record Row(
                BatchId id,
                String name,
                String account,
                Money amount,
                int claims,
                int marked,
                String by,
                java.time.LocalDate checkDate,
                String sentBy) {}
        List<Row> rows = jdbc.sql("""
                        SELECT b.id, b.name AS batch_name, a.name AS account_name, a.currency, b.method, b.check_date, p.name AS person_name,
                          (SELECT COUNT(*) FROM claim c WHERE c.batch_id = b.id) AS claims,
                          (SELECT COALESCE(SUM(c.amount_minor), 0) FROM claim c WHERE c.batch_id = b.id) AS amount_minor,
                          (SELECT COUNT(DISTINCT m.claim_id) FROM approval_mark m JOIN claim c ON c.id = m.claim_id
                            AND c.batch_id = b.id WHERE m.batch_id = b.id AND m.round = b.approval_round) AS marked
                        FROM batch b JOIN bank_account a ON a.id = b.bank_account_id
                        JOIN approval_round r ON r.batch_id = b.id AND r.round = b.approval_round
                        JOIN person p ON p.id = r.sent_by
                        WHERE b.state = :waits ORDER BY b.sent_at, b.id LIMIT :most
                        """)
                .param("waits", BatchState.IN_APPROVAL.name())
                .param("most", MOST_WAITING)
                .query((r, n) -> new Row(
                        new BatchId(r.getLong("id")),
                        r.getString("batch_name"),
                        r.getString("account_name"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        r.getInt("claims"),
                        r.getInt("marked"),
                        PaymentMethod.valueOf(r.getString("method")).words(),
                        r.getObject("check_date", java.time.LocalDate.class),
                        r.getString("person_name")))
                .list();
        Map<BatchId, Round> present = new HashMap<>();
        rounds.of(rows.stream().map(Row::id).toList(), by.today()).forEach(round -> present.put(round.batch(), round));
        Roster roster = deputies.roster(by.today());
        List<DeskView.WaitingBatch> waiting = new ArrayList<>();
        Map<Currency, Money> mine = new LinkedHashMap<>();
        for (Row row : rows) {
            Round round = Objects.requireNonNull(present.get(row.id()));
            May may = May.of(by, round, roster);
            Optional<Round.Opened> step = round.waiting();
            if (may.approve()) {
                mine.merge(row.amount().currency(), row.amount(), Money::plus);
            }
            waiting.add(new DeskView.WaitingBatch(
                    row.id().value(),
                    row.name(),
                    row.account(),
                    MoneyView.of(row.amount()),
                    row.claims(),
                    row.marked(),
                    row.by(),
                    row.checkDate(),
                    row.sentBy(),
                    round.sentAt(),
                    step.map(Round.Opened::openedAt).orElse(null),
                    round.current(),
                    round.opened().size(),
                    step.map(one -> one.step().name()).orElse(""),
                    round.route(),
                    round.number() + 1,
                    may.approve(),
                    may.onBehalfOf(),
                    may.whyNot(),
                    step.filter(one -> one.escalatedAt() != null).isPresent()));
        }
        waiting.sort(Comparator.comparing(one -> !one.mine()));
        return new DeskView(waiting, mine.values().stream().map(MoneyView::of).toList(), Instant.now());
    }
}
