package leveltally.server.paper;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.DateStyle;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.paper.AlignmentPage;
import leveltally.core.paper.CheckDrawing;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.Place;
import leveltally.core.paper.Says;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.Handed;
import leveltally.core.printers.Outcome;
import leveltally.core.printers.PrinterId;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.people.People;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.PrintJob;
import leveltally.server.printers.Printers;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Reads the layouts of a series for whoever makes one, and draws what they make. */
@Service
class LayoutPages {

    private final Layouts layouts;
    private final Alignments alignments;
    private final Printers printers;
    private final CheckPages checks;
    private final Series series;
    private final SampleChecks samples;
    private final Typefaces typefaces;
    private final People people;
    private final JdbcClient jdbc;

    LayoutPages(
            Layouts layouts,
            Alignments alignments,
            Printers printers,
            CheckPages checks,
            Series series,
            SampleChecks samples,
            Typefaces typefaces,
            People people,
            JdbcClient jdbc) {
        this.layouts = layouts;
        this.alignments = alignments;
        this.printers = printers;
        this.checks = checks;
        this.series = series;
        this.samples = samples;
        this.typefaces = typefaces;
        this.people = people;
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    LayoutPage of(Actor by, SeriesId id) {
        by.mayDo(Deed.READ);
        NumberSeries numbers = series.get(id);
        List<Layouts.Version> versions = layouts.versions(id);
        int inForce = versions.stream()
                .filter(version -> !version.from().isAfter(by.today()))
                .findFirst()
                .map(Layouts.Version::version)
                .orElse(0);
        Map<Long, String> names = people.names();
        Map<Long, String> all = seriesNames();
        return new LayoutPage(
                id.value(),
                all.getOrDefault(id.value(), ""),
                numbers.stock().words(),
                printers.inUse().stream()
                        .map(one -> AlignmentView.of(one, alignments.of(id, one.id())))
                        .toList(),
                numbers.loading(),
                LayoutFile.of(layouts.inForce(id, by.today()).layout()),
                inForce,
                versions.isEmpty() ? 0 : versions.get(0).version(),
                versions.stream()
                        .map(one -> new LayoutPage.LayoutVersion(
                                one.version(),
                                one.from(),
                                one.why(),
                                one.madeAt(),
                                names.getOrDefault(one.madeBy(), "Somebody"),
                                state(one, inForce, by.today())))
                        .toList(),
                Arrays.stream(Says.values())
                        .map(says -> new LayoutPage.BlockChoice(says.name(), says.words(), List.copyOf(says.parts())))
                        .toList(),
                Arrays.stream(SampleChecks.Sample.values())
                        .map(one -> new LayoutPage.PaperChoice(one.name(), one.words()))
                        .toList(),
                DateStyle.CHOICES.stream()
                        .map(one -> new LayoutPage.PaperChoice(one.name(), one.words()))
                        .toList(),
                all.entrySet().stream()
                        .map(one -> new LayoutPage.OtherSeries(one.getKey(), one.getValue()))
                        .toList(),
                Deed.SET_LAYOUT.allowedTo(by.roles()),
                Deed.ALIGN_PRINTER.allowedTo(by.roles()));
    }

    private static String state(Layouts.Version version, int inForce, LocalDate today) {
        if (version.version() == inForce) {
            return "printed on now";
        }
        return version.from().isAfter(today) && version.version() > inForce ? "later" : "before";
    }

    private Map<Long, String> seriesNames() {
        Map<Long, String> names = new LinkedHashMap<>();
        jdbc.sql("SELECT id, account_name, way_name FROM series_of_account ORDER BY place, id")
                .query((java.sql.ResultSet r) -> {
                    names.put(r.getLong("id"), r.getString("account_name") + ", " + r.getString("way_name"));
                });
        return names;
    }

    /** A version as a file; 0 is the one that was there before anybody made one. */
    @Transactional(readOnly = true)
    LayoutFile file(Actor by, SeriesId id, int version) {
        by.mayDo(Deed.READ);
        series.get(id);
        if (version == 0) {
            return LayoutFile.of(StandardLayouts.LETTER);
        }
        return layouts.versions(id).stream()
                .filter(one -> one.version() == version)
                .findFirst()
                .map(one -> LayoutFile.of(one.layout()))
                .orElseThrow(() -> Refusal.notFound("no-layout", "This series has no such version of its layout."));
    }

    /** One to begin with. */
    LayoutFile standard(LayoutFile.Sheet page, Place place, int stubs) {
        if (stubs < 0 || stubs > 2) {
            throw Refusal.invalidField("layout-stubs", "stubs", "A sheet has none, one or two stubs.");
        }
        return LayoutFile.of(StandardLayouts.of(page.size(), place, stubs));
    }

    @Transactional(readOnly = true)
    LayoutView draw(Actor by, SeriesId id, CheckLayout layout, SampleChecks.Sample sample) {
        by.mayDo(Deed.READ);
        NumberSeries numbers = series.get(id);
        CheckText text = samples.of(numbers).get(sample);
        return LayoutView.of(layout, text, samples.findings(numbers, layout), typefaces);
    }

    /** Check, stubs and advice of a payment on plain paper, to lay over the stock; no check. */
    @Transactional
    byte[] testPage(Actor by, SeriesId id, CheckLayout layout, PrinterId printer) {
        layouts.tested(by, id, layout);
        CheckText text = samples.of(series.get(id)).get(SampleChecks.Sample.PAYMENT);
        List<Page> drawn = new ArrayList<>();
        drawn.add(CheckDrawing.toLookAt(text, layout, typefaces).moved(alignments.of(id, printer)));
        drawn.add(CheckDrawing.looseAdvice(text, layout, typefaces));
        return checks.pdf("Test page, not a check", drawn);
    }

    /** What is printed on now, as frames on plain paper. */
    @Transactional(readOnly = true)
    byte[] alignment(Actor by, SeriesId id, PrinterId printer) {
        by.mayDo(Deed.READ);
        series.get(id);
        Page page = AlignmentPage.of(layouts.inForce(id, by.today()).layout()).moved(alignments.of(id, printer));
        return Pdf.of("Alignment page, not a check", List.of(page));
    }

    /** The same on the printer itself, which shares its queue with the checks. */
    void printAlignment(Actor by, SeriesId id, PrinterId printer) {
        by.mayDo(Deed.ALIGN_PRINTER);
        CompanyPrinter on = printers.usable(printer);
        byte[] pdf = alignment(by, id, printer);
        Handed handed =
                printers.way(on).print(on, new PrintJob("Alignment page", new BankAccountId(0), pdf, List.of(), true));
        if (handed.outcome() != Outcome.ACCEPTED) {
            throw Refusal.conflict(
                    "printer-"
                            + handed.outcome()
                                    .name()
                                    .toLowerCase(java.util.Locale.ROOT)
                                    .replace('_', '-'),
                    on.name() + " " + handed.outcome().words() + ": " + handed.said() + ". Look at the printer.");
        }
    }
}
