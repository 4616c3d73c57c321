package leveltally.server.approval;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Comparison;
import leveltally.core.approval.Policy;
import leveltally.core.approval.Step;
import leveltally.core.approval.Takers;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.Mark;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import leveltally.server.marks.MarkView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Keeps each sending of a batch as it was. */
@Component
class Rounds {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final JsonMapper json;

    Rounds(JdbcClient jdbc, JdbcOperations many, JsonMapper json) {
        this.jdbc = jdbc;
        this.many = many;
        this.json = json;
    }

    /** Freezes the route and what is asked, whose digests are written already, and opens the first step. */
    @Transactional
    void open(
            Actor by,
            BatchId batch,
            int round,
            Policies.InForce policy,
            Policy.Choice choice,
            Map<ClaimId, List<Mark>> marks) {
        jdbc.sql("INSERT INTO approval_round (batch_id, round, route, why, policy_id, sent_by, sent_at)"
                        + " VALUES (:batch, :round, :route, :why, :policy, :by, :at)")
                .param("batch", batch.value())
                .param("round", round)
                .param("route", choice.route().name())
                .param("why", shortened(choice.why()))
                .param("policy", policy.id())
                .param("by", by.person().value())
                .param("at", Timestamp.from(by.now()))
                .update();
        List<Object[]> steps = new ArrayList<>();
        List<Object[]> people = new ArrayList<>();
        int number = 0;
        for (Step step : choice.route().steps()) {
            number++;
            Role role = step.takers().role();
            steps.add(new Object[] {
                batch.value(),
                round,
                number,
                step.name(),
                role == null ? null : role.name(),
                step.needed(),
                step.remindAfterHours(),
                step.escalateAfterHours(),
                number == 1 ? Timestamp.from(by.now()) : null
            });
            for (PersonId person : step.takers().people()) {
                people.add(new Object[] {batch.value(), round, number, 1, person.value()});
            }
            for (PersonId person : step.secondLine()) {
                people.add(new Object[] {batch.value(), round, number, 2, person.value()});
            }
        }
        many.batchUpdate(
                "INSERT INTO approval_step (batch_id, round, step, name, role, needed, remind_after_hours,"
                        + " escalate_after_hours, opened_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                steps);
        many.batchUpdate(
                "INSERT INTO approval_step_person (batch_id, round, step, line, person_id) VALUES (?, ?, ?, ?, ?)",
                people);
        jdbc.sql(
                        "INSERT INTO approval_asked (batch_id, round, claim_id, vendor_id, remit_to_id, payee, amount_minor, digest)"
                                + " SELECT batch_id, ?, id, vendor_id, remit_to_id, payee, amount_minor, digest FROM claim"
                                + " WHERE batch_id = ?")
                .params(round, batch.value())
                .update();
        List<Object[]> marked = new ArrayList<>();
        marks.forEach((claim, found) -> found.forEach(mark -> marked.add(new Object[] {
            batch.value(),
            round,
            claim.value(),
            mark.key(),
            mark.kind().name(),
            shortened(mark.reason()),
            json.writeValueAsString(MarkView.facts(mark))
        })));
        many.batchUpdate(
                "INSERT INTO approval_mark (batch_id, round, claim_id, mark_key, kind, reason, facts)"
                        + " VALUES (?, ?, ?, ?, ?, ?, ?)",
                marked);
    }

    private static String shortened(String text) {
        return text.substring(0, Math.min(500, text.length()));
    }

    /** Opens a later step. */
    void openStep(Round round, int step, Instant now) {
        stamp("opened_at", round, step, now);
    }

    void reminded(Round round, int step, Instant now) {
        stamp("reminded_at", round, step, now);
    }

    void escalated(Round round, int step, Instant now) {
        stamp("escalated_at", round, step, now);
    }

    private void stamp(String column, Round round, int step, Instant now) {
        jdbc.sql("UPDATE approval_step SET " + column + " = ? WHERE batch_id = ? AND round = ? AND step = ?")
                .params(Timestamp.from(now), round.batch().value(), round.number(), step)
                .update();
    }

    /** The present round of a batch that was sent. */
    @Transactional(readOnly = true)
    Round of(BatchId batch, LocalDate today) {
        return of(List.of(batch), today).get(0);
    }

    /** The present rounds of several batches, in six statements whatever their number; drafts never sent are missing. */
    @Transactional(readOnly = true)
    List<Round> of(Collection<BatchId> batches, LocalDate today) {
        if (batches.isEmpty()) {
            return List.of();
        }
        List<Long> ids = batches.stream().map(BatchId::value).toList();
        Map<Long, List<Round.Opened>> steps = steps(ids);
        Map<Long, List<Round.Given>> given = given(ids);
        Map<Long, Set<PersonId>> hands = hands(ids);
        Map<Long, Map<PersonId, String>> interested = interested(ids, today);
        return jdbc.sql("""
                        SELECT b.id, r.round, r.route, r.why, r.sent_by, r.sent_at FROM batch b
                        JOIN approval_round r ON r.batch_id = b.id AND r.round = b.approval_round
                        WHERE b.id IN (:ids) ORDER BY b.id
                        """)
                .param("ids", ids)
                .query((r, n) -> new Round(
                        new BatchId(r.getLong("id")),
                        r.getInt("round"),
                        r.getString("route"),
                        r.getString("why"),
                        new PersonId(r.getLong("sent_by")),
                        r.getTimestamp("sent_at").toInstant(),
                        steps.getOrDefault(r.getLong("id"), List.of()),
                        given.getOrDefault(r.getLong("id"), List.of()),
                        hands.getOrDefault(r.getLong("id"), Set.of()),
                        interested.getOrDefault(r.getLong("id"), Map.of())))
                .list();
    }

    private Map<Long, List<Round.Opened>> steps(List<Long> ids) {
        Map<String, Set<PersonId>> people = new HashMap<>();
        jdbc.sql("""
                        SELECT p.batch_id, p.step, p.line, p.person_id FROM approval_step_person p
                        JOIN batch b ON b.id = p.batch_id AND b.approval_round = p.round WHERE b.id IN (:ids)
                        """).param("ids", ids).query((ResultSet r) -> {
            people.computeIfAbsent(
                            key(r.getLong("batch_id"), r.getInt("step"), r.getInt("line")), none -> new HashSet<>())
                    .add(new PersonId(r.getLong("person_id")));
        });
        Map<Long, List<Round.Opened>> steps = new HashMap<>();
        jdbc.sql("""
                        SELECT s.batch_id, s.step, s.name, s.role, s.needed, s.remind_after_hours, s.escalate_after_hours,
                          s.opened_at, s.reminded_at, s.escalated_at
                        FROM approval_step s JOIN batch b ON b.id = s.batch_id AND b.approval_round = s.round
                        WHERE b.id IN (:ids) ORDER BY s.batch_id, s.step
                        """).param("ids", ids).query((ResultSet r) -> {
            long batch = r.getLong("batch_id");
            String role = r.getString("role");
            Set<PersonId> first = people.getOrDefault(key(batch, r.getInt("step"), 1), Set.of());
            Step step = new Step(
                    r.getString("name"),
                    role == null ? Takers.named(first) : Takers.of(Role.valueOf(role)),
                    r.getInt("needed"),
                    r.getInt("remind_after_hours"),
                    r.getInt("escalate_after_hours"),
                    people.getOrDefault(key(batch, r.getInt("step"), 2), Set.of()));
            steps.computeIfAbsent(batch, none -> new ArrayList<>())
                    .add(new Round.Opened(step, instant(r, 8), instant(r, 9), instant(r, 10)));
        });
        return steps;
    }

    private static String key(long batch, int step, int line) {
        return batch + " " + step + " " + line;
    }

    private static @Nullable Instant instant(ResultSet r, int column) throws SQLException {
        Timestamp at = r.getTimestamp(column);
        return at == null ? null : at.toInstant();
    }

    private Map<Long, List<Round.Given>> given(List<Long> ids) {
        Map<Long, List<Round.Given>> given = new HashMap<>();
        jdbc.sql("""
                        SELECT a.batch_id, a.step, a.person_id, a.on_behalf_of, a.at FROM approval a
                        JOIN batch b ON b.id = a.batch_id AND b.approval_round = a.round
                        WHERE b.id IN (:ids) AND a.outcome = 'APPROVED' ORDER BY a.at, a.id
                        """).param("ids", ids).query((ResultSet r) -> {
            given.computeIfAbsent(r.getLong("batch_id"), none -> new ArrayList<>())
                    .add(new Round.Given(
                            r.getInt("step"),
                            new PersonId(r.getLong("person_id")),
                            new PersonId(r.getLong("on_behalf_of")),
                            r.getTimestamp("at").toInstant()));
        });
        return given;
    }

    private Map<Long, Set<PersonId>> hands(List<Long> ids) {
        Map<Long, Set<PersonId>> hands = new HashMap<>();
        jdbc.sql("SELECT batch_id, person_id FROM hand WHERE batch_id IN (:ids)")
                .param("ids", ids)
                .query((ResultSet r) -> {
                    hands.computeIfAbsent(r.getLong("batch_id"), none -> new HashSet<>())
                            .add(new PersonId(r.getLong("person_id")));
                });
        return hands;
    }

    /** Who may not approve a batch because of a vendor paid in it; the database keeps the same rule (law L7). */
    Map<Long, Map<PersonId, String>> interested(List<Long> ids, LocalDate today) {
        Map<Long, Map<PersonId, String>> interested = new HashMap<>();
        jdbc.sql("""
                        SELECT DISTINCT c.batch_id, x.person_id, v.name FROM claim c JOIN vendor v ON v.id = c.vendor_id
                        JOIN (
                          SELECT vendor_id, proposed_by AS person_id, COALESCE(decided_on, proposed_on) AS day
                            FROM vendor_change WHERE state IN ('PROPOSED', 'CONFIRMED')
                          UNION ALL
                          SELECT vendor_id, decided_by, decided_on FROM vendor_change WHERE state = 'CONFIRMED'
                        ) x ON x.vendor_id = c.vendor_id AND x.day >= :since
                        WHERE c.batch_id IN (:ids) ORDER BY v.name DESC
                        """)
                .param("ids", ids)
                .param("since", today.minusDays(TwoPeople.DAYS))
                .query((ResultSet r) -> {
                    interested
                            .computeIfAbsent(r.getLong("batch_id"), none -> new HashMap<>())
                            .put(new PersonId(r.getLong("person_id")), r.getString("name"));
                });
        return interested;
    }

    /** What a round asked, by claim. */
    @Transactional(readOnly = true)
    List<Comparison.Sent> asked(BatchId batch, int round) {
        return jdbc.sql("""
                        SELECT k.claim_id, k.vendor_id, k.payee, k.amount_minor, a.currency, k.digest FROM approval_asked k
                        JOIN batch b ON b.id = k.batch_id JOIN bank_account a ON a.id = b.bank_account_id
                        WHERE k.batch_id = ? AND k.round = ? ORDER BY k.claim_id
                        """)
                .params(batch.value(), round)
                .query((r, n) -> new Comparison.Sent(
                        new ClaimId(r.getLong("claim_id")),
                        new VendorId(r.getLong("vendor_id")),
                        r.getString("payee"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        new ClaimDigest(r.getString("digest"))))
                .list();
    }

    /** The last round before this one that a person answered, or else the last that was asked at all; −1 for none. */
    @Transactional(readOnly = true)
    int lastSeen(BatchId batch, int round, PersonId person) {
        return jdbc.sql("""
                        SELECT COALESCE(
                          (SELECT MAX(a.round) FROM approval a WHERE a.batch_id = :batch AND a.round < :round
                            AND a.person_id = :person),
                          (SELECT MAX(r.round) FROM approval_round r WHERE r.batch_id = :batch AND r.round < :round), -1)
                        """)
                .param("batch", batch.value())
                .param("round", round)
                .param("person", person.value())
                .query(Integer.class)
                .single();
    }
}
