package leveltally.server.printing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.PrinterId;
import leveltally.core.printing.Answer;
import leveltally.core.vendors.Delivery;
import leveltally.server.batches.Deliveries;
import leveltally.server.frame.Needs;
import leveltally.server.paper.PageView;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Runs, answers and the tray. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class PrintController {
    private final PrintingViews views;
    private final Printing printing;
    private final RunPages pages;
    private final Answers answers;
    private final Renumbering renumbering;
    private final Deliveries deliveries;

    PrintController(
            PrintingViews views,
            Printing printing,
            RunPages pages,
            Answers answers,
            Renumbering renumbering,
            Deliveries deliveries) {
        this.deliveries = deliveries;
        this.renumbering = renumbering;
        this.views = views;
        this.printing = printing;
        this.pages = pages;
        this.answers = answers;
    }

    record PrintRequest(
            long turn,
            long firstNumber,
            @NotNull @Size(max = 200) String reason,
            long printer,
            @NotNull @Size(max = 5_000) List<Long> claims,
            boolean byDelivery) {}

    record AnswerRequest(
            long document,
            @NotNull Answer answer,
            @NotNull @Size(max = 200) String why) {}

    /** {@code callBack}: what is still in the printer's queue is taken out of it. */
    record AnswersRequest(@NotEmpty @Valid List<AnswerRequest> answers, boolean callBack) {}

    record OnPrinter(long printer) {}

    @GetMapping("/batches/{id}/printing")
    PrintingView state(Actor by, @PathVariable long id) {
        return views.of(by, new BatchId(id));
    }

    /** {@code claims} are printed now, all where none is named. Records the numbers, then hands the run to the printer. A crash between the two loses neither. */
    @PostMapping("/batches/{id}/print")
    @Needs(Deed.PRINT)
    PrintingView print(Actor by, @PathVariable long id, @Valid @RequestBody PrintRequest wanted) {
        printing.print(
                by,
                new BatchId(id),
                wanted.turn(),
                wanted.firstNumber(),
                wanted.reason(),
                new PrinterId(wanted.printer()),
                new Part(wanted.claims().stream().map(ClaimId::new).collect(Collectors.toSet()), wanted.byDelivery()));
        return views.of(by, new BatchId(id));
    }

    record DeliveryWanted(
            @NotEmpty @Size(max = 5_000) List<Long> claims,
            @NotNull Delivery delivery) {}

    /** How these checks reach their payees. */
    @PostMapping("/batches/{id}/delivery")
    @Needs(Deed.EDIT_BATCH)
    PrintingView sayDelivery(Actor by, @PathVariable long id, @Valid @RequestBody DeliveryWanted wanted) {
        deliveries.say(
                by,
                new BatchId(id),
                wanted.claims().stream().map(ClaimId::new).collect(Collectors.toSet()),
                wanted.delivery());
        return views.of(by, new BatchId(id));
    }

    /** Hands over a run whose numbers were recorded before a break; safe to repeat. */
    @PostMapping("/batches/{id}/runs/{run}/send")
    @Needs(Deed.PRINT)
    PrintingView sendAgain(Actor by, @PathVariable long id, @PathVariable long run, @RequestBody OnPrinter on) {
        printing.send(by, run, new PrinterId(on.printer()));
        return views.of(by, new BatchId(id));
    }

    /** The pages of such a run for a printer of one's own; the first to ask has them. */
    @PostMapping("/batches/{id}/runs/{run}/open")
    @Needs(Deed.PRINT)
    ResponseEntity<byte[]> open(Actor by, @PathVariable long id, @PathVariable long run, @RequestBody OnPrinter on) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .cacheControl(CacheControl.noStore())
                .body(printing.open(by, run, new PrinterId(on.printer())));
    }

    @PostMapping("/batches/{id}/print-on-own-numbers")
    @Needs(Deed.PRINT)
    PrintingView printOnOwnNumbers(Actor by, @PathVariable long id, @RequestBody OnPrinter on) {
        printing.printOnOwnNumbers(by, new BatchId(id), new PrinterId(on.printer()));
        return views.of(by, new BatchId(id));
    }

    /** {@code says} is the number on the paper of that sheet. */
    record PaperSays(
            long document,
            long says,
            @NotNull @Size(max = 200) String why) {}

    /** From a sheet on the stock has other numbers than were reckoned with; the rest of its run is renumbered. */
    @PostMapping("/batches/{id}/paper-says")
    @Needs(Deed.PRINT)
    PrintingView paperSays(Actor by, @PathVariable long id, @Valid @RequestBody PaperSays wanted) {
        renumbering.renumber(by, new BatchId(id), wanted.document(), wanted.says(), wanted.why());
        return views.of(by, new BatchId(id));
    }

    record Release(
            @NotEmpty @Size(max = 5_000) List<Long> documents,
            @NotNull @Size(max = 200) String why) {}

    /** Sheets that stayed blank and are not printed on their numbers: those are unaccounted from now on. */
    @PostMapping("/batches/{id}/release-blanks")
    @Needs(Deed.PRINT)
    PrintingView releaseBlanks(Actor by, @PathVariable long id, @Valid @RequestBody Release wanted) {
        answers.releaseBlanks(by, new BatchId(id), new HashSet<>(wanted.documents()), wanted.why());
        return views.of(by, new BatchId(id));
    }

    /** {@code spoiled}: the paper is destroyed; otherwise it stayed blank or is lost. */
    record TakeOutPayments(
            @NotEmpty @Size(max = 5_000) List<Long> claims,
            boolean spoiled,
            @NotNull @Size(max = 200) String why,
            boolean callBack) {}

    /** Takes payments out until they are posted; their invoices come free. */
    @PostMapping("/batches/{id}/take-out-payments")
    @Needs(Deed.PRINT)
    PrintingView takeOut(Actor by, @PathVariable long id, @Valid @RequestBody TakeOutPayments wanted) {
        printing.takeOut(
                by,
                new BatchId(id),
                wanted.claims().stream().map(ClaimId::new).collect(Collectors.toSet()),
                wanted.spoiled(),
                wanted.why(),
                wanted.callBack());
        return views.of(by, new BatchId(id));
    }

    @PostMapping("/batches/{id}/answers")
    @Needs(Deed.PRINT)
    PrintingView answer(Actor by, @PathVariable long id, @Valid @RequestBody AnswersRequest wanted) {
        printing.answer(
                by,
                new BatchId(id),
                wanted.answers().stream()
                        .map(a -> new Said(a.document(), a.answer(), a.why()))
                        .toList(),
                wanted.callBack());
        return views.of(by, new BatchId(id));
    }

    /** Numbers and ranges as they are read in the tray, such as {@code 41742-41760, 41763}; empty for none. */
    record AnswersByNumber(
            @NotNull @Size(max = 4_000) String good,
            @NotNull @Size(max = 4_000) String spoiled,
            @NotNull @Size(max = 4_000) String blank,
            @NotNull @Size(max = 200) String why,
            boolean callBack) {}

    @PostMapping("/batches/{id}/answers-by-number")
    @Needs(Deed.PRINT)
    PrintingView answerByNumber(Actor by, @PathVariable long id, @Valid @RequestBody AnswersByNumber wanted) {
        printing.byNumber(
                by,
                new BatchId(id),
                Map.of(
                        Answer.GOOD, wanted.good(),
                        Answer.SPOILED, wanted.spoiled(),
                        Answer.BLANK, wanted.blank()),
                wanted.why(),
                wanted.callBack());
        return views.of(by, new BatchId(id));
    }

    /** A sheet as it lies in the tray, marked as no check. */
    @GetMapping("/documents/{document}/page")
    PageView page(Actor by, @PathVariable long document) {
        by.mayDo(Deed.READ);
        return PageView.of(pages.trayPage(document));
    }

    @GetMapping(value = "/runs/{run}/copy.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> copy(Actor by, @PathVariable long run) {
        by.mayDo(Deed.READ);
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"copy-of-run-" + run + ".pdf\"")
                .body(pages.copy(run));
    }
}
