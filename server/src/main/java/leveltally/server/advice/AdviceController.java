package leveltally.server.advice;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The remittance advice of a payment. */
@RestController
@RequestMapping("/api/payments/{id}/advice")
@Needs(Deed.READ)
class AdviceController {
    private final AdviceRows rows;
    private final Advices advices;
    private final AdvicePdf pdf;

    AdviceController(AdviceRows rows, Advices advices, AdvicePdf pdf) {
        this.rows = rows;
        this.advices = advices;
        this.pdf = pdf;
    }

    @GetMapping
    AdvisedView advice(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return rows.of(by, new PaymentId(id));
    }

    /** The same list that goes by mail, to look at or to print. */
    @GetMapping(value = "/pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        var list = pdf.of(new PaymentId(id));
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"" + list.name() + "\"")
                .body(list.pdf());
    }

    record AdviceWanted(@NotNull @Size(max = 200) String address) {}

    @PostMapping("/mail")
    @Needs(Deed.MAIL_ADVICE)
    AdvisedView mail(Actor by, @PathVariable long id, @Valid @RequestBody AdviceWanted wanted) {
        advices.again(by, new PaymentId(id), wanted.address());
        return rows.of(by, new PaymentId(id));
    }
}
