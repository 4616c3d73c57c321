package leveltally.server.printing;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterId;
import leveltally.core.printing.Answer;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.PrintJob;
import leveltally.server.printers.Printers;
import org.springframework.stereotype.Service;

/**
 * Onto paper: the numbers are recorded, the run is drawn and marked as being handed over, the printer gets it, and its answer is
 * taken down. Each is a transaction of its own and none is open while a printer takes its time, so that a crash between two of
 * them loses nothing and prints nothing twice.
 */
@Service
public class Printing {
    private static final int MOST_REDRAWN = 5;

    private final Numbering numbering;
    private final OwnNumbers ownNumbers;
    private final HandingOver handingOver;
    private final RunPages pages;
    private final Printers printers;
    private final HandoverRows rows;
    private final Answers answers;
    private final TakingOut takingOut;

    Printing(
            Numbering numbering,
            OwnNumbers ownNumbers,
            HandingOver handingOver,
            RunPages pages,
            Printers printers,
            HandoverRows rows,
            Answers answers,
            TakingOut takingOut) {
        this.takingOut = takingOut;
        this.numbering = numbering;
        this.ownNumbers = ownNumbers;
        this.handingOver = handingOver;
        this.pages = pages;
        this.printers = printers;
        this.rows = rows;
        this.answers = answers;
    }

    /**
     * Takes numbers for what has none and prints them; where the pages are opened they wait for that.
     *
     * @param inTray the first number on the paper in the tray
     * @param reason needed when it is ahead of the next number
     */
    public Numbered print(Actor by, BatchId batch, long turnSerial, long inTray, String reason, PrinterId printer) {
        return print(by, batch, turnSerial, inTray, reason, printer, Part.WHOLE);
    }

    /** The same for a part of the batch ({@link Numbering#number}). */
    public Numbered print(
            Actor by, BatchId batch, long turnSerial, long inTray, String reason, PrinterId printer, Part part) {
        CompanyPrinter on = printers.usable(printer);
        Numbered numbered = numbering.number(by, batch, turnSerial, inTray, reason, part);
        if (!on.opensPages()) {
            hand(by, numbered.run(), on);
        }
        return numbered;
    }

    /** Prints sheets that stayed blank, and damaged ones that may be, on their own numbers. */
    public long printOnOwnNumbers(Actor by, BatchId batch, PrinterId printer) {
        CompanyPrinter on = printers.usable(printer);
        long run = ownNumbers.print(by, batch);
        if (!on.opensPages()) {
            hand(by, run, on);
        }
        return run;
    }

    /** Hands over a run whose numbers were recorded before a break, or that a printer refused; safe to repeat. */
    public void send(Actor by, long run, PrinterId printer) {
        CompanyPrinter on = printers.usable(printer);
        if (on.opensPages()) {
            throw Refusal.conflict("opens-pages", on.name() + " prints pages that are opened. Open them here.");
        }
        hand(by, run, on);
    }

    /** The pages of a run for whoever prints them from the browser; the first to ask has them, and nobody again. */
    public byte[] open(Actor by, long run, PrinterId printer) {
        CompanyPrinter on = printers.usable(printer);
        if (!on.opensPages()) {
            throw Refusal.conflict("sends-pages", "Pages are sent to " + on.name() + ". Print them there.");
        }
        return hand(by, run, on)
                .map(PrintJob::pdf)
                .orElseThrow(() -> Refusal.conflict(
                        "opened-already",
                        "These pages were opened or printed already. Look at the paper and answer for each sheet; one"
                                + " that stayed blank prints again on its own number."));
    }

    /** Gives a run to a printer unless somebody did; answers with what it gave. */
    private Optional<PrintJob> hand(Actor by, long run, CompanyPrinter on) {
        by.mayDo(Deed.PRINT);
        for (int i = 0; i < MOST_REDRAWN; i++) {
            List<Long> wanted = handingOver.wanted(run);
            DrawnRun drawn = pages.job(run, on, wanted);
            Optional<Long> handing = handingOver.begin(by, run, on, drawn);
            if (handing.isPresent()) {
                Handed handed = wanted.isEmpty()
                        ? Handed.accepted("nothing of it is wanted any more", "")
                        : printers.way(on).print(on, drawn.job());
                handingOver.end(by, handing.get(), run, handed);
                return Optional.of(drawn.job());
            }
            if (handingOver.isSent(run)) {
                return Optional.empty();
            }
        }
        throw Refusal.conflict("changes-meanwhile", "Others change what is printed. Look again in a moment.");
    }

    /**
     * Takes people's answers for sheets of one batch. What was not good is printed anew, so nothing of it may come out of its
     * printer after all.
     *
     * @param callBack somebody looked: what is still in the printer's queue is taken out of it
     */
    public void answer(Actor by, BatchId batch, List<Said> said, boolean callBack) {
        settle(by, batch, said, callBack);
        answers.answer(by, batch, said);
    }

    /** The same by the numbers on the sheets ({@link Answers#byNumber}). */
    public void byNumber(Actor by, BatchId batch, Map<Answer, String> texts, String why, boolean callBack) {
        settle(by, batch, answers.meant(batch, texts, why), callBack);
        answers.byNumber(by, batch, texts, why);
    }

    /** Takes payments out ({@link TakingOut#takeOut}); their sheets may not come out of a printer afterwards either. */
    public void takeOut(Actor by, BatchId batch, Set<ClaimId> claims, boolean spoiled, String why, boolean callBack) {
        by.mayDo(Deed.PRINT);
        settle(rows.jobsOfClaims(batch, claims.stream().map(ClaimId::value).toList()), callBack);
        takingOut.takeOut(by, batch, claims, spoiled, why);
    }

    private void settle(Actor by, BatchId batch, List<Said> said, boolean callBack) {
        by.mayDo(Deed.PRINT);
        List<Long> notGood = said.stream()
                .filter(one -> one.answer() != Answer.GOOD)
                .map(Said::document)
                .toList();
        settle(notGood.isEmpty() ? List.of() : rows.jobs(batch, notGood), callBack);
    }

    private void settle(List<HandoverRows.GivenJob> jobs, boolean callBack) {
        for (HandoverRows.GivenJob given : jobs) {
            CompanyPrinter on = printers.get(given.printer());
            if (!printers.way(on).mayStillPrint(on, given.job())) {
                continue;
            }
            if (!callBack) {
                throw Refusal.conflict("may-still-print", mayStillPrint(on, given.job()));
            }
            printers.way(on).callBack(on, given.job());
        }
    }

    private static String mayStillPrint(CompanyPrinter on, String job) {
        return job.isEmpty()
                ? "Nobody knows whether " + on.name() + " has these sheets in its queue still. Look at the queue first."
                : "Job " + job + " of " + on.name()
                        + " may still print these sheets. Look at the printer and its queue first.";
    }
}
