package leveltally.server.voiding;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Showing what undoing payments would do, doing it, and the second person's word. */
@RestController
@RequestMapping("/api/undoing")
@Needs(Deed.READ)
class UndoingController {
    private final Undoing undoing;
    private final Questions questions;
    private final UndoViews views;
    private final UndoingQuestions asked;

    UndoingController(Undoing undoing, Questions questions, UndoViews views, UndoingQuestions asked) {
        this.undoing = undoing;
        this.questions = questions;
        this.views = views;
        this.asked = asked;
    }

    /** What becomes of an invoice; {@code account} takes it for one account, {@code why} is said of a held one. */
    record FateAsked(
            @NotNull Wanted.How how,
            @Nullable Long account,
            @Nullable @Size(max = 200) String why) {
        Wanted.Fate fate() {
            return new Wanted.Fate(how, account, why);
        }
    }

    record InvoiceFate(long invoice, @NotNull @Valid FateAsked fate) {}

    record PaymentUndone(
            long payment, @NotNull @Size(max = 2_000) List<@NotNull @Valid InvoiceFate> invoices) {}

    /**
     * {@code date} null dates each on its own ledger date; {@code into} is the draft that takes what is open again;
     * {@code bankReference} tells of what the bank sent back.
     */
    record UndoAsked(
            @NotEmpty @Size(max = Wanted.MOST) List<@NotNull @Valid PaymentUndone> payments,
            @Nullable LocalDate date,
            @NotNull @Valid FateAsked others,
            @Nullable Long into,
            @Nullable @Size(max = 60) String bankReference) {
        Wanted wanted() {
            return new Wanted(
                    payments.stream()
                            .map(one -> new Wanted.One(
                                    one.payment(),
                                    one.invoices().stream()
                                            .map(single -> new Wanted.Single(
                                                    single.invoice(),
                                                    single.fate().fate()))
                                            .toList()))
                            .toList(),
                    date,
                    others.fate(),
                    into,
                    bankReference == null ? null : bankReference.strip());
        }
    }

    record UndoDeed(
            @NotNull @Valid UndoAsked asked,
            @NotNull @Size(max = 200) String reason) {}

    record WhyNot(@NotNull @Size(max = 200) String why) {}

    @PostMapping("/preview")
    @Needs(Deed.READ)
    UndoView preview(Actor by, @Valid @RequestBody UndoAsked wanted) {
        by.mayDo(Deed.READ);
        return views.of(by, wanted.wanted(), by.roles());
    }

    @PostMapping
    @Needs(Deed.UNDO_PAYMENT)
    Undoing.Asked undo(Actor by, @Valid @RequestBody UndoDeed deed) {
        return undoing.undo(by, deed.asked().wanted(), deed.reason());
    }

    /** What waits for a second person, the oldest first. */
    @GetMapping
    List<UndoingView> waiting(Actor by) {
        by.mayDo(Deed.READ);
        return asked.waiting(by);
    }

    /** What was asked for, with what it would do now. */
    @GetMapping("/{id}")
    UndoingWhole one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return asked.whole(by, id);
    }

    @PostMapping("/{id}/agree")
    @Needs(Deed.AGREE_TO_UNDO)
    void agree(Actor by, @PathVariable long id) {
        questions.agree(by, id);
    }

    /** A second person's no, or taking back one's own. */
    @PostMapping("/{id}/refuse")
    @Needs(Deed.REFUSE_TO_UNDO)
    void refuse(Actor by, @PathVariable long id, @Valid @RequestBody WhyNot no) {
        questions.refuse(by, id, no.why());
    }
}
