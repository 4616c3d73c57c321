package leveltally.server.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.paper.CheckDrawing;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.MicrPattern;
import leveltally.core.paper.Page;
import leveltally.core.paper.Paper;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What the printer is handed, as ink on paper. */
class PaperTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final int DPI = 144;

    private static byte[] check(@Nullable Paper paper) {
        Money amount = Money.parse("1225.00", USD);
        Money none = Money.zero(USD);
        var line = new ClaimLine.Invoice(new InvoiceId(1), "OP-5133", amount, none, none);
        var remitTo = new RemitTo(
                "Île de Gorse <b>Pêcheries</b>", List.of("Hall 3", "4 Quai Ouest", "Port Gorse 7700", "Isle of Gorse"));
        var claim = new Claim(new ClaimId(1), new VendorId(1), remitTo, amount, List.of(line));
        var payer = new CheckText.Payer(
                "Marrow Bay Ferries",
                List.of("4 Ropewalk Quay", "Skerrow"),
                "Skerrow Trust",
                "dollars",
                "Not valid after 180 days",
                null,
                null);
        var text = CheckText.of(
                payer,
                claim,
                LocalDate.of(2026, 11, 13),
                41237L,
                Stub.of(List.of(line), Map.of(line.id(), LocalDate.of(2026, 11, 3)), Set.of(), "see our letter"),
                null);
        Page page = paper == null
                ? CheckDrawing.toLookAt(text, StandardLayouts.LETTER, new Typefaces())
                : CheckDrawing.forThePrinter(text, StandardLayouts.LETTER, paper, null, new Typefaces());
        return Pdf.of("Checks", List.of(page));
    }

    /** Dark pixels of a strip of the page, in inches from the top and the left. */
    private static long ink(BufferedImage page, double top, double bottom, double left, double right) {
        long dark = 0;
        for (int y = (int) (top * DPI); y < bottom * DPI; y++) {
            for (int x = (int) (left * DPI); x < right * DPI; x++) {
                dark += (page.getRGB(x, y) & 0xff) < 128 ? 1 : 0;
            }
        }
        return dark;
    }

    @Test
    void theMicrLineStandsAloneInTheClearBand() throws IOException {
        byte[] bytes = check(
                new Paper.Blank(MicrPattern.read("C########C|KC"), new RoutingNumber("990044105"), "004417720931"));
        String keep = System.getProperty("paper.keep");
        if (keep != null) {
            Files.write(Path.of(keep), bytes);
        }
        try (PDDocument pdf = Loader.loadPDF(bytes)) {
            BufferedImage page = new PDFRenderer(pdf).renderImageWithDPI(0, DPI);
            double edge = 3.5;
            assertThat(ink(page, edge - 0.1875 - 0.12, edge - 0.1875 + 0.01, 1, 7))
                    .isGreaterThan(1_000);
            assertThat(ink(page, edge - 0.625, edge - 0.32, 0, 8.5)).isZero();
            assertThat(ink(page, edge - 0.17, edge - 0.03, 0, 8.5)).isZero();
            assertThat(new PDFTextStripper().getText(pdf))
                    .contains("Île de Gorse <b>Pêcheries</b>")
                    .doesNotContain("NOT A CHECK");
        }
    }

    @Test
    void aCopyHasNoMicrLineInTheBand() throws IOException {
        try (PDDocument pdf = Loader.loadPDF(check(null))) {
            assertThat(new PDFTextStripper().getText(pdf)).contains("NOT A CHECK");
            BufferedImage page = new PDFRenderer(pdf).renderImageWithDPI(0, DPI);
            assertThat(ink(page, 3.18, 3.32, 1, 3)).isZero();
        }
    }
}
