package leveltally.server.clearing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.ExceptionKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** What the bank tells: read, looked at, answered. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class ClearingController {
    private static final int LONGEST = 400;

    private final BankReading reading;
    private final BankExceptions exceptions;
    private final Answering answering;
    private final TakingBack takingBack;
    private final KeptLayouts layouts;

    ClearingController(
            BankReading reading,
            BankExceptions exceptions,
            Answering answering,
            TakingBack takingBack,
            KeptLayouts layouts) {
        this.reading = reading;
        this.exceptions = exceptions;
        this.answering = answering;
        this.takingBack = takingBack;
        this.layouts = layouts;
    }

    record PaidByHand(
            long account,
            @NotNull @Size(max = 40) String number,
            @NotNull @Size(max = 40) String amount,
            @NotNull LocalDate day) {}

    record LookedAgain(long account) {}

    /** Answered alike, all of them. */
    record BankAnswer(
            long account,
            @NotNull @Size(max = 20_000) List<Answering.SeenMovement> movements,
            @NotNull Answer answer,
            @NotNull @Size(max = LONGEST) String why,
            @Nullable Long ledgerAccount,
            @Nullable LocalDate on,
            @NotNull @Size(max = LONGEST) String remember,
            @NotNull @Size(max = 40) String number,
            @NotNull @Size(max = 500) List<Answering.MatchedWith> has) {}

    record ClearingTakenBack(
            long account,
            long movement,
            long version,
            @NotNull @Size(max = LONGEST) String why) {}

    /** The files that were read, the newest first. */
    @GetMapping("/bank-reports")
    List<BankExceptions.BankReportView> reports(Actor by, @RequestParam long account) {
        return exceptions.reports(by, new BankAccountId(account));
    }

    /** The layouts by which a file is read that does not say itself how it is written. */
    @GetMapping("/bank-reports/layouts")
    List<KeptLayouts.ReadingLayout> layouts(Actor by) {
        by.mayDo(Deed.READ);
        return layouts.toRead();
    }

    /** Reads a file of the bank, whole or not at all. */
    @PostMapping(value = "/bank-reports", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @Needs(Deed.RECORD_CLEARING)
    BankReading.BankRead read(
            Actor by,
            @RequestParam long account,
            @RequestParam(required = false) @Nullable Long layout,
            @RequestParam(defaultValue = "") String gap,
            @RequestPart("file") MultipartFile file)
            throws IOException {
        // before it is taken into memory
        by.mayDo(Deed.RECORD_CLEARING);
        BankReading.mustBeShort(file.getSize(), BankReading.LONGEST);
        String name = file.getOriginalFilename();
        return reading.read(
                by,
                new BankReading.Sent(
                        new BankAccountId(account), name == null ? "" : name, file.getBytes(), layout, gap));
    }

    @PostMapping("/bank-reports/by-hand")
    @Needs(Deed.RECORD_CLEARING)
    BankReading.BankRead byHand(Actor by, @Valid @RequestBody PaidByHand paid) {
        return reading.byHand(by, new BankAccountId(paid.account()), paid.number(), paid.amount(), paid.day());
    }

    @PostMapping("/bank-reports/look-again")
    @Needs(Deed.RECORD_CLEARING)
    BankReading.BankRead lookAgain(Actor by, @Valid @RequestBody LookedAgain wanted) {
        return reading.lookAgain(by, new BankAccountId(wanted.account()));
    }

    @GetMapping("/bank-exceptions")
    BankExceptions.ExceptionsView exceptions(
            Actor by, @RequestParam long account, @RequestParam(required = false) @Nullable ExceptionKind kind) {
        return exceptions.of(by, new BankAccountId(account), kind);
    }

    @GetMapping("/bank-exceptions/{id}/candidates")
    List<BankExceptions.CandidateView> candidates(Actor by, @PathVariable long id, @RequestParam long account) {
        return exceptions.candidates(by, new BankAccountId(account), id);
    }

    @PostMapping("/bank-exceptions/answer")
    @Needs(Deed.RECORD_CLEARING)
    Answering.Answered answer(Actor by, @Valid @RequestBody BankAnswer given) {
        return answering.answer(
                by,
                new Answering.Given(
                        new BankAccountId(given.account()),
                        given.movements(),
                        given.answer(),
                        given.why(),
                        given.ledgerAccount() == null ? null : new AccountId(given.ledgerAccount()),
                        given.on(),
                        given.remember(),
                        given.number(),
                        given.has()));
    }

    /** What a file told, with what stands for each movement. */
    @GetMapping("/bank-movements")
    BankExceptions.BankMovementsView movements(
            Actor by,
            @RequestParam long account,
            @RequestParam(required = false) @Nullable Long report,
            @RequestParam(required = false) @Nullable String number,
            @RequestParam(required = false) @Nullable Long after) {
        return exceptions.movements(by, new BankAccountId(account), report, number, after);
    }

    @PostMapping("/bank-movements/take-back")
    @Needs(Deed.RECORD_CLEARING)
    void takeBack(Actor by, @Valid @RequestBody ClearingTakenBack wanted) {
        takingBack.takeBack(
                by,
                new BankAccountId(wanted.account()),
                new Answering.SeenMovement(wanted.movement(), wanted.version()),
                wanted.why());
    }
}
