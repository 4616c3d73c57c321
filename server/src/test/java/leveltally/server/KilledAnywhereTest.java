package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.printing.Answer;
import leveltally.server.posting.Posting;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.Printer;
import leveltally.server.printers.Printers;
import leveltally.server.printing.Answers;
import leveltally.server.printing.DrawnRun;
import leveltally.server.printing.HandingOver;
import leveltally.server.printing.Printing;
import leveltally.server.printing.RunPages;
import leveltally.server.printing.Said;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;

/**
 * Whatever step of printing is the last one that was done, fifty times: each run is taken up again by somebody else, who knows
 * only what lies in the tray and what the database says.
 */
class KilledAnywhereTest {
    private static final List<String> PAYEES = List.of("Bollard Foundry", "Ironwrack Chain", "Pelorus Charts");

    private final Random random = new Random(20_261_126);

    /** After which step everything ended. */
    private enum Last {
        NUMBERS_TAKEN,
        MARKED_AS_HANDED_OVER,
        PRINTED_BUT_NOT_SAID,
        ALL_DONE
    }

    @Test
    void everySheetIsAccountedForAndNoNumberStandsOnTwoGoodOnes() {
        for (int round = 0; round < 50; round++) {
            Last last = Last.values()[random.nextInt(Last.values().length)];
            InvoiceId[] invoices = new InvoiceId[1 + random.nextInt(3)];
            for (int i = 0; i < invoices.length; i++) {
                invoices[i] = App.invoice(PAYEES.get(i), (70 + round) + "." + (10 + i));
            }
            BatchId batch = App.approved(invoices);
            long first = App.numbered(batch);
            doneUpTo(last, first);
            if (random.nextInt(16) == 0) {
                App.DATABASE.crash();
            }
            takenUpAgain(batch, first);
            bean(Posting.class).post(ines(), batch);
        }
        assertThat(App.number("SELECT COUNT(*) FROM (SELECT d.check_number_id FROM document d WHERE d.kind = 'CHECK'"
                        + " AND d.answer = 'GOOD' GROUP BY d.check_number_id HAVING COUNT(*) > 1) twice"))
                .isZero();
        assertThat(App.number("SELECT COUNT(*) FROM document d JOIN print_run r ON r.id = d.run_id"
                        + " JOIN batch b ON b.id = r.batch_id WHERE b.name = 'Test batch' AND b.state = 'POSTED'"
                        + " AND d.kind = 'CHECK' AND d.answer IS NULL"))
                .isZero();
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private void doneUpTo(Last last, long run) {
        if (last == Last.NUMBERS_TAKEN) {
            return;
        }
        if (last == Last.ALL_DONE) {
            App.handOver(run);
            return;
        }
        Printers printers = bean(Printers.class);
        CompanyPrinter tray = printers.usable(App.tray());
        DrawnRun drawn =
                bean(RunPages.class).job(run, tray, bean(HandingOver.class).wanted(run));
        assertThat(bean(HandingOver.class).begin(ines(), run, tray, drawn)).isPresent();
        if (last == Last.PRINTED_BUT_NOT_SAID) {
            Printer way = printers.way(tray);
            way.print(tray, drawn.job());
        }
    }

    /** Tomas comes a day later: hands over what was not, answers as the tray shows it, and prints what stayed blank. */
    private void takenUpAgain(BatchId batch, long run) {
        Printing printing = bean(Printing.class);
        printing.send(App.tomas(), run, App.tray());
        List<Said> said = new ArrayList<>();
        boolean blank = false;
        boolean spoiled = false;
        for (long document : App.documents(run)) {
            boolean there = App.number("SELECT COUNT(*) FROM tray_sheet WHERE document_id = ?", document) > 0;
            boolean smeared = there && random.nextInt(6) == 0;
            blank |= !there;
            spoiled |= smeared;
            said.add(new Said(document, !there ? Answer.BLANK : smeared ? Answer.SPOILED : Answer.GOOD, "seen"));
        }
        bean(Answers.class).answer(App.tomas(), batch, said);
        if (blank) {
            long again = printing.printOnOwnNumbers(ines(), batch, App.tray());
            App.answer(batch, App.documents(again), Answer.GOOD, "");
        }
        if (spoiled) {
            long replaced = App.numbered(batch);
            App.handOver(replaced);
            App.answer(batch, App.documents(replaced), Answer.GOOD, "");
        }
    }
}
