package leveltally.server.proof;

import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.proof.LevelStrip;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The proof, and the level of a batch. */
@RestController
@RequestMapping("/api")
@Needs(Deed.RUN_PROOF)
class ProofController {
    private final Proof proof;
    private final Levels levels;

    ProofController(Proof proof, Levels levels) {
        this.proof = proof;
        this.levels = levels;
    }

    record LawView(String law, String statement, String looked, List<String> findings) {}

    record ProofView(boolean clean, List<LawView> laws, String head, long records) {}

    record TallyView(
            String step, String words, int count, @Nullable String amount) {}

    /** @param words how far off, in a word or two; blank while it is not */
    record VialView(String bubble, String words, String sentence) {}

    record LevelView(boolean level, List<TallyView> tallies, List<VialView> vials, int voidedCount, String voided) {}

    @GetMapping("/proof")
    ProofView proof(Actor by) {
        by.mayDo(Deed.RUN_PROOF);
        Proof.Report report = proof.run();
        List<LawView> laws = report.laws().stream()
                .sorted(java.util.Comparator.comparing(Proof.Checked::law))
                .map(checked -> new LawView(
                        checked.law().name(), checked.law().statement(), checked.looked(), checked.findings()))
                .toList();
        return new ProofView(report.isClean(), laws, report.head(), report.records());
    }

    record KeptHeadView(boolean found, String sentence, List<String> findings) {}

    /** Whether the trail still holds a head hash that was kept outside. */
    @GetMapping("/proof/head")
    @Needs(Deed.RUN_PROOF)
    KeptHeadView head(@RequestParam String hash) {
        Proof.KeptHead kept = proof.against(hash);
        String sentence = !kept.found()
                ? "No record of the trail has this hash: the trail was cut off before it, or altered, or it is the hash of"
                        + " another trail. Compare with a copy of the database from that day."
                : "The trail still holds it, as record " + kept.sequence() + "; " + kept.since()
                        + (kept.since() == 1 ? " record has" : " records have") + " followed.";
        return new KeptHeadView(kept.found(), sentence, kept.findings());
    }

    @GetMapping("/batches/{id}/level")
    LevelView level(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        LevelStrip strip = levels.of(new BatchId(id));
        List<TallyView> tallies = strip.tallies().stream()
                .map(t -> new TallyView(
                        t.step().name(),
                        t.step().words(),
                        t.count(),
                        t.amount() == null ? null : t.amount().toString()))
                .toList();
        List<VialView> vials = new java.util.ArrayList<>();
        for (int i = 0; i < strip.vials().size(); i++) {
            vials.add(view(strip, i));
        }
        LevelStrip.Tally voided = levels.voided(new BatchId(id));
        return new LevelView(strip.isLevel(), tallies, vials, voided.count(), String.valueOf(voided.amount()));
    }

    private static VialView view(LevelStrip strip, int i) {
        LevelStrip.Vial vial = strip.vials().get(i);
        String left = strip.tallies().get(i).step().words();
        String right = strip.tallies().get(i + 1).step().words();
        String difference = vial.difference() == null
                ? null
                : vial.difference().max(vial.difference().negated()).toString();
        String sentence = switch (vial.bubble()) {
            case EMPTY -> right + ": not reached yet";
            case LEVEL -> left + " and " + right + " agree";
            case UNEVEN ->
                left + " and " + right + " come to the same, but differ on " + vial.payments()
                        + (vial.payments() == 1 ? " payment" : " payments");
            case WAITING -> "The bank has not paid " + difference + " of it";
            case SHORT -> right + " is " + difference + " short of " + left;
            case OVER -> right + " is " + difference + " over " + left;
        };
        String words = switch (vial.bubble()) {
            case EMPTY, LEVEL -> "";
            case WAITING -> difference + " not paid";
            case UNEVEN -> vial.payments() + (vial.payments() == 1 ? " differs" : " differ");
            case SHORT -> difference + " short";
            case OVER -> difference + " over";
        };
        return new VialView(vial.bubble().name(), words, sentence);
    }

    /** The rows that make the difference; {@code vial} 0 stands between the first two tallies. */
    @GetMapping("/batches/{id}/level/{vial}")
    List<Levels.Difference> differences(Actor by, @PathVariable long id, @PathVariable int vial) {
        by.mayDo(Deed.READ);
        return levels.between(new BatchId(id), vial);
    }
}
