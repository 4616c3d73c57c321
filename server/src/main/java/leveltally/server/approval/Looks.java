package leveltally.server.approval;

import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.marks.FactView;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.marks.MarkView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What of a batch deserves a look: its marks with their answers, what was struck, what was noted. */
@Component
class Looks {
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Choosing choosing;
    private final MarkAnswers answers;

    Looks(
            JdbcClient jdbc,
            JsonMapper json,
            Batches batches,
            ClaimRows claimRows,
            Choosing choosing,
            MarkAnswers answers) {
        this.jdbc = jdbc;
        this.json = json;
        this.batches = batches;
        this.claimRows = claimRows;
        this.choosing = choosing;
        this.answers = answers;
    }

    @Transactional(readOnly = true)
    LooksView of(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        Map<ClaimId, List<MarkView>> marks = new LinkedHashMap<>();
        if (batch.state() == BatchState.DRAFT) {
            Map<String, MarkAnswers.Answer> said = answers.of(id);
            choosing.choose(by, batch, claimRows.of(id))
                    .marks()
                    .forEach((claim, found) -> marks.put(
                            claim,
                            found.stream().map(mark -> MarkView.of(mark, said)).toList()));
        } else {
            marks.putAll(marks(id, batch.approvalRound()));
        }
        int back = batch.approvalRound() - 1;
        return new LooksView(
                marks.entrySet().stream()
                        .map(one -> new LooksView.ClaimMarks(one.getKey().value(), one.getValue()))
                        .toList(),
                notes(id, back),
                struck(id));
    }

    /** The marks as they were sent, with the newest answers. */
    Map<ClaimId, List<MarkView>> marks(BatchId id, int round) {
        Map<String, MarkAnswers.Answer> said = answers.of(id);
        Map<ClaimId, List<MarkView>> marks = new LinkedHashMap<>();
        TypeReference<List<FactView>> facts = new TypeReference<>() {};
        jdbc.sql("SELECT claim_id, mark_key, kind, reason, facts FROM approval_mark WHERE batch_id = ? AND round = ?"
                        + " ORDER BY claim_id")
                .params(id.value(), round)
                .query((ResultSet r) -> {
                    marks.computeIfAbsent(new ClaimId(r.getLong("claim_id")), none -> new ArrayList<>())
                            .add(MarkView.of(
                                    r.getString("mark_key"),
                                    MarkKind.valueOf(r.getString("kind")),
                                    r.getString("reason"),
                                    json.readValue(r.getString("facts"), facts),
                                    said));
                });
        marks.values().forEach(own -> own.sort(Comparator.comparing(mark -> MarkKind.valueOf(mark.kind()))));
        return marks;
    }

    List<LooksView.StruckView> struck(BatchId id) {
        return jdbc.sql("""
                        SELECT s.payee, s.amount_minor, s.currency, s.reason, p.name, s.at, s.round FROM approval_strike s
                        JOIN person p ON p.id = s.person_id WHERE s.batch_id = ? ORDER BY s.id
                        """)
                .param(id.value())
                .query((r, n) -> new LooksView.StruckView(
                        r.getString("payee"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))
                                .toString(),
                        r.getString("reason"),
                        r.getString("name"),
                        r.getTimestamp("at").toInstant(),
                        r.getInt("round") + 1))
                .list();
    }

    List<LooksView.NoteView> notes(BatchId id, int round) {
        return jdbc.sql("""
                        SELECT n.claim_id, n.payee, n.note, p.name, n.round FROM approval_note n
                        JOIN person p ON p.id = n.person_id WHERE n.batch_id = ? AND n.round = ? ORDER BY n.claim_id
                        """)
                .params(id.value(), round)
                .query((r, n) -> new LooksView.NoteView(
                        r.getLong("claim_id"),
                        r.getString("payee"),
                        r.getString("note"),
                        r.getString("name"),
                        r.getInt("round") + 1))
                .list();
    }
}
