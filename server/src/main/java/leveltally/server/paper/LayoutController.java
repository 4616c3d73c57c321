package leveltally.server.paper;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.LocalDate;
import leveltally.core.checks.SeriesId;
import leveltally.core.paper.Alignment;
import leveltally.core.paper.Place;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.PrinterId;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.frame.Needs;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How the checks of a series stand on paper. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class LayoutController {
    private final LayoutPages pages;
    private final Layouts layouts;
    private final Alignments alignments;
    private final SeriesSetup series;

    LayoutController(LayoutPages pages, Layouts layouts, Alignments alignments, SeriesSetup series) {
        this.series = series;
        this.pages = pages;
        this.layouts = layouts;
        this.alignments = alignments;
    }

    /** In millimetres, to the tenth. */
    record AlignmentRequest(
            long printer,
            @NotNull @Digits(integer = 4, fraction = 1) BigDecimal right,
            @NotNull @Digits(integer = 4, fraction = 1) BigDecimal down) {}

    record DrawLayoutRequest(
            @NotNull @Valid LayoutFile layout, @NotNull SampleChecks.Sample sample) {}

    /** @param newest the version that was the newest when this layout was begun; 0 for none */
    record KeepLayoutRequest(
            @NotNull @Valid LayoutFile layout,
            @NotNull LocalDate from,
            @NotNull @Size(max = 500) String why,
            int newest) {}

    record KeptLayout(int version) {}

    @GetMapping("/series/{id}/layouts")
    LayoutPage all(Actor by, @PathVariable long id) {
        return pages.of(by, new SeriesId(id));
    }

    @GetMapping("/series/{id}/layouts/{version}")
    LayoutFile file(Actor by, @PathVariable long id, @PathVariable int version) {
        return pages.file(by, new SeriesId(id), version);
    }

    @GetMapping("/layouts/standard")
    LayoutFile standard(@RequestParam LayoutFile.Sheet page, @RequestParam Place place, @RequestParam int stubs) {
        return pages.standard(page, place, stubs);
    }

    /** Draws a layout that is being made, and says what is wrong with it; changes nothing. */
    @PostMapping("/series/{id}/layouts/draw")
    @Needs(Deed.READ)
    LayoutView draw(Actor by, @PathVariable long id, @Valid @RequestBody DrawLayoutRequest wanted) {
        return pages.draw(by, new SeriesId(id), wanted.layout().layout(), wanted.sample());
    }

    /** A test page of a layout, as a PDF; a layout is kept by whoever had it. */
    @PostMapping("/series/{id}/layouts/test")
    @Needs(Deed.SET_LAYOUT)
    ResponseEntity<byte[]> testPage(
            Actor by, @PathVariable long id, @RequestParam long printer, @Valid @RequestBody LayoutFile layout) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .body(pages.testPage(by, new SeriesId(id), layout.layout(), new PrinterId(printer)));
    }

    @PostMapping("/series/{id}/layouts")
    @Needs(Deed.SET_LAYOUT)
    KeptLayout keep(Actor by, @PathVariable long id, @Valid @RequestBody KeepLayoutRequest wanted) {
        return new KeptLayout(layouts.keep(
                by, new SeriesId(id), wanted.layout().layout(), wanted.from(), wanted.why(), wanted.newest()));
    }

    /** A page on plain paper to lay over the stock, drawn with the printer's alignment. */
    @GetMapping("/series/{id}/alignment.pdf")
    ResponseEntity<byte[]> alignment(Actor by, @PathVariable long id, @RequestParam long printer) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .body(pages.alignment(by, new SeriesId(id), new PrinterId(printer)));
    }

    record AlignmentPageRequest(long printer) {}

    /** Prints that page on a printer that pages can be sent to. */
    @PostMapping("/series/{id}/alignment/print")
    @Needs(Deed.ALIGN_PRINTER)
    void printAlignment(Actor by, @PathVariable long id, @RequestBody AlignmentPageRequest wanted) {
        pages.printAlignment(by, new SeriesId(id), new PrinterId(wanted.printer()));
    }

    record LoadingRequest(@NotNull @Size(max = 400) String loading) {}

    /** Which paper is loaded for its checks, in the company's words. */
    @PostMapping("/series/{id}/loading")
    @Needs(Deed.ALIGN_PRINTER)
    LayoutPage sayLoading(Actor by, @PathVariable long id, @Valid @RequestBody LoadingRequest wanted) {
        series.sayLoading(by, new SeriesId(id), wanted.loading());
        return pages.of(by, new SeriesId(id));
    }

    @PostMapping("/series/{id}/alignment")
    @Needs(Deed.ALIGN_PRINTER)
    LayoutPage align(Actor by, @PathVariable long id, @Valid @RequestBody AlignmentRequest wanted) {
        alignments.set(
                by,
                new SeriesId(id),
                new PrinterId(wanted.printer()),
                new Alignment(
                        wanted.right().movePointRight(1).intValueExact(),
                        wanted.down().movePointRight(1).intValueExact()));
        return pages.of(by, new SeriesId(id));
    }
}
