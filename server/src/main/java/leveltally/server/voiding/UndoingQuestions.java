package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.Role;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Reads what was asked to be undone, for those who asked and those who may agree. */
@Component
class UndoingQuestions {
    private static final int NAMED = 3;

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final UndoViews views;

    UndoingQuestions(JdbcClient jdbc, JsonMapper json, UndoViews views) {
        this.jdbc = jdbc;
        this.json = json;
        this.views = views;
    }

    private record Row(
            UndoingView view,
            UndoingState state,
            String content,
            @Nullable String decider,
            String decidedWhy) {}

    @Transactional(readOnly = true)
    List<UndoingView> waiting(Actor by) {
        return rows(by, "u.state = :asked", Map.of("asked", UndoingState.ASKED.name())).stream()
                .map(Row::view)
                .toList();
    }

    @Transactional(readOnly = true)
    UndoingWhole whole(Actor by, long id) {
        Row row = rows(by, "u.id = :id", Map.of("id", id)).stream()
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("no-undoing", "Nothing of that number was asked for."));
        boolean waits = row.state() == UndoingState.ASKED;
        String decided = waits || row.decider() == null
                ? ""
                : row.state().words() + " by " + row.decider()
                        + (row.decidedWhy().isEmpty() ? "" : ": " + row.decidedWhy());
        Wanted wanted = json.readValue(row.content(), Wanted.class);
        return new UndoingWhole(
                row.view(),
                row.state().words(),
                decided,
                waits && row.view().kind().equals(UndoingKind.UNDO.name())
                        ? views.of(by, wanted, Set.of(Role.CONTROLLER))
                        : null);
    }

    private List<Row> rows(Actor by, String which, Map<String, ?> params) {
        Map<Long, List<String>> names = new HashMap<>();
        Map<Long, Map<String, Money>> amounts = new HashMap<>();
        Map<Long, Integer> counts = new HashMap<>();
        jdbc.sql("SELECT x.undoing_id, n.number, p.payee, p.amount_minor, p.currency FROM undoing u"
                        + " JOIN undoing_payment x ON x.undoing_id = u.id JOIN payment p ON p.id = x.payment_id"
                        + " LEFT JOIN check_number n ON n.live_payment_id = p.id WHERE " + which
                        + " ORDER BY n.number, p.id")
                .params(params)
                .query((java.sql.ResultSet r) -> {
                    long id = r.getLong("undoing_id");
                    Money amount = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
                    Long number = r.getObject("number", Long.class);
                    counts.merge(id, 1, Integer::sum);
                    amounts.computeIfAbsent(id, none -> new TreeMap<>())
                            .merge(amount.currency().getCurrencyCode(), amount, Money::plus);
                    List<String> named = names.computeIfAbsent(id, none -> new ArrayList<>());
                    if (named.size() < NAMED) {
                        named.add((number == null ? "" : "Check " + number + ", ") + r.getString("payee"));
                    }
                });
        return jdbc.sql("""
                        SELECT u.id, u.kind, u.state, u.content, u.reason, u.asked_by, a.name AS asked_name, u.asked_at, u.asked_on,
                          d.name AS decider, u.decided_why,
                          EXISTS (SELECT 1 FROM undoing_payment x JOIN payment p ON p.id = x.payment_id
                            JOIN hand h ON h.batch_id = p.batch_id AND h.person_id = :me
                            WHERE x.undoing_id = u.id) AS own_hand
                        FROM undoing u JOIN person a ON a.id = u.asked_by LEFT JOIN person d ON d.id = u.decided_by WHERE
                        """ + which + " ORDER BY u.asked_at, u.id")
                .params(params)
                .param("me", by.person().value())
                .query((r, n) -> {
                    long id = r.getLong("id");
                    boolean mine = r.getLong("asked_by") == by.person().value();
                    return new Row(
                            new UndoingView(
                                    id,
                                    r.getString("kind"),
                                    UndoingKind.valueOf(r.getString("kind")).words(),
                                    r.getString("asked_name"),
                                    r.getTimestamp("asked_at").toInstant(),
                                    r.getObject("asked_on", LocalDate.class),
                                    r.getString("reason"),
                                    names.getOrDefault(id, List.of()),
                                    counts.getOrDefault(id, 0),
                                    amounts.getOrDefault(id, Map.of()).values().stream()
                                            .map(MoneyView::of)
                                            .toList(),
                                    mine,
                                    !mine && !r.getBoolean("own_hand") && Deed.AGREE_TO_UNDO.allowedTo(by.roles())),
                            UndoingState.valueOf(r.getString("state")),
                            r.getString("content"),
                            r.getString("decider"),
                            r.getString("decided_why"));
                })
                .list();
    }
}
