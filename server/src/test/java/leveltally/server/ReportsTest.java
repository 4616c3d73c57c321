package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import leveltally.core.batches.BatchId;
import leveltally.core.paper.Measure;
import leveltally.core.paper.PageSize;
import leveltally.core.printing.Answer;
import leveltally.core.reports.Report;
import leveltally.core.reports.ReportPages;
import leveltally.server.paper.Pdf;
import leveltally.server.posting.Posting;
import leveltally.server.reports.Reported;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The same list on a screen, on paper and as a file. */
class ReportsTest {
    private static final JsonMapper JSON = new JsonMapper();

    private static JsonNode lines(Http http, String path) {
        return JSON.readTree(http.get(path).body()).get("lines");
    }

    @Test
    void whatWillBePaidIsListedBeforeApproval() {
        BatchId batch = App.draft(
                App.invoice("Bollard Foundry", "61.00"),
                App.invoice("Bollard Foundry", "62.00"),
                App.invoice("Pelorus Charts", "63.50"));
        Http clerk = Http.signedIn("ines");
        String path = "/api/batches/" + batch.value() + "/payments-list";
        JsonNode lines = lines(clerk, path);
        assertThat(lines.get(0).toString()).contains("GROUP", "Bollard Foundry", "by mail");
        assertThat(lines.get(3).toString()).contains("TOTAL", "2 entries", "123.00");
        assertThat(lines.get(lines.size() - 1).toString()).contains("TOTAL", "2 payments", "186.50");
        String csv = clerk.get(path + ".csv", "text/csv").body();
        assertThat(csv).contains("total,2 payments,,186.50,0.00,186.50");
        assertThat(Http.signedIn("priya").get(path).status()).isEqualTo(200);
    }

    @Test
    void whatWasPrintedIsARegisterOfEverySheet() throws IOException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "64.00"), App.invoice("Pelorus Charts", "65.00"));
        long first = App.nextNumber();
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run).subList(0, 1), Answer.SPOILED, "smeared");
        App.answer(batch, App.documents(run).subList(1, 2), Answer.GOOD, "");
        Http clerk = Http.signedIn("ines");
        String path = "/api/batches/" + batch.value() + "/run-register";
        JsonNode lines = lines(clerk, path);
        assertThat(lines.get(0).toString()).contains("Ines Okafor", "Stand-in tray");
        assertThat(lines.get(1).toString()).contains("" + first, "64.00", "spoiled: smeared");
        assertThat(lines.toString()).contains("\"1 sheet\",\"\",\"65.00\",\"good\"", "\"64.00\",\"spoiled\"");
        assertThat(clerk.get(path + ".pdf", "application/pdf").body()).startsWith("%PDF");
        long again = App.numbered(batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(lines(clerk, path).toString()).contains("2 sheets", "129.00");
    }

    /** What stands on the paper is what stands on the screen. */
    @Test
    void thePaperSaysWhatTheScreenSays() throws IOException {
        BatchId batch = App.draft(App.invoice("Bollard Foundry", "66.25"));
        Report report = Reported.payments(batch);
        byte[] pdf = Pdf.of(report.title(), ReportPages.of(report, PageSize.LETTER, "foot", bean(Measure.class)));
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document))
                    .contains("What will be paid: Test batch", "Bollard Foundry", "66.25", "1 payment", "page 1 of 1");
        }
    }
}
