package leveltally.server.printing;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Answer;
import leveltally.core.printing.ByNumber;
import leveltally.core.printing.Sheet;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.checks.Series;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people say of the sheets that came out, and of those that did not. */
@Service
public class Answers {
    private final Batches batches;
    private final Checks checks;
    private final Series series;
    private final AuditTrail audit;
    private final Runs runs;

    Answers(Batches batches, Checks checks, Series series, AuditTrail audit, Runs runs) {
        this.batches = batches;
        this.checks = checks;
        this.series = series;
        this.audit = audit;
        this.runs = runs;
    }

    /**
     * Takes people's answers for sheets of one batch, all or none ({@link Sheet#answered}).
     */
    @Transactional
    public void answer(Actor by, BatchId batch, List<Said> answers) {
        by.mayDo(Deed.PRINT);
        Batch of = batches.lockAnyVersion(batch);
        boolean reprint = series.of(of.way()).sameNumberReprint();
        Map<Long, DocumentEntity> documents =
                runs.lock(batch, answers.stream().map(Said::document).toList());
        Map<Long, RunEntity> from = runs.of(documents.values());
        Set<Long> printedAgain = runs.printedAgain(answers.stream()
                .map(said -> documents.get(said.document()))
                .filter(document -> document != null && document.answer != null)
                .toList());
        Map<CheckNumberId, Check> numbers = checks.lock(documents.values().stream()
                .map(document -> new CheckNumberId(document.checkNumberId))
                .toList());
        for (Said said : answers) {
            DocumentEntity document = documents.get(said.document());
            if (document == null) {
                throw Refusal.notFound("no-document", "There is no such sheet in this batch.");
            }
            if (document.answer != null && document.answer != said.answer() && printedAgain.contains(document.id)) {
                throw Refusal.conflict(
                        "printed-again",
                        "This number was printed once more since. Answer for its latest sheet; the earlier one is done with.");
            }
            boolean sent = from.get(document.runId).sentAt != null;
            answer(by, document, numbers.get(new CheckNumberId(document.checkNumberId)), sent, reprint, said);
        }
        audit.record(
                by,
                "answer sheets",
                "batch " + batch.value(),
                Map.of(
                        "answers",
                        answers.stream()
                                .map(a -> a.document() + " " + a.answer())
                                .toList()));
    }

    /**
     * The same by the numbers on the sheets, as they are read in the tray ({@link ByNumber}).
     *
     * @param why what happened to the sheets that cannot be used
     */
    @Transactional
    public void byNumber(Actor by, BatchId batch, Map<Answer, String> texts, String why) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(batch);
        answer(by, batch, meant(batch, texts, why));
    }

    /** Which sheets the numbers mean. */
    @Transactional(readOnly = true)
    public List<Said> meant(BatchId batch, Map<Answer, String> texts, String why) {
        Map<Long, Long> waiting = runs.waiting(batch);
        return ByNumber.said(waiting.keySet(), texts).stream()
                .map(one -> new Said(Objects.requireNonNull(waiting.get(one.number())), one.answer(), why))
                .toList();
    }

    private void answer(
            Actor by, DocumentEntity document, @Nullable Check check, boolean sent, boolean reprint, Said said) {
        if (check == null || check.payment().id().value() != document.paymentId) {
            throw Refusal.conflict(
                    "printed-again",
                    (check == null ? "This number" : "Number " + check.number())
                            + " carries another payment since. Answer for its latest sheet; the earlier one is done with.");
        }
        Sheet sheet = new Sheet(
                check.number(), sent, reprint, document.answer, check.payment().postedEntry() != null);
        sheet.answered(said.answer(), said.why()).ifPresent(given -> {
            document.answer = given.answer();
            document.answerWhy = given.why();
            document.answeredAt = by.now();
            document.answeredBy = by.person().value();
            String why = given.answer() == Answer.GOOD ? "" : given.why();
            given.becomes().ifPresent(state -> checks.move(by, check.id(), state, by.today(), why));
        });
    }

    /** Releases numbers whose sheets stayed blank: unaccounted from now on, and their payments get new ones. */
    @Transactional
    public void releaseBlanks(Actor by, BatchId id, Set<Long> wanted, String why) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(id);
        String reason = Reasons.given(why, "Say why these numbers are not printed, such as “sheets lost”.");
        int released = 0;
        for (DocumentEntity document : runs.latest(id)) {
            if (!wanted.contains(document.id) || document.answer != Answer.BLANK) {
                continue;
            }
            CheckNumberId number = new CheckNumberId(document.checkNumberId);
            if (checks.lock(number).state() == NumberState.TAKEN) {
                checks.move(by, number, NumberState.UNACCOUNTED, by.today(), reason);
                released++;
            }
        }
        if (released == 0) {
            throw Refusal.conflict("nothing-blank", "None of these sheets waits as still blank. Look at them again.");
        }
        audit.record(by, "release blank numbers", "batch " + id.value(), Map.of("count", released, "why", reason));
    }
}
