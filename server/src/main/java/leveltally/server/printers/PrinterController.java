package leveltally.server.printers;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.PrinterId;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The company's printers. */
@RestController
@RequestMapping("/api/printers")
@Needs(Deed.READ)
class PrinterController {
    private final Printers printers;

    PrinterController(Printers printers) {
        this.printers = printers;
    }

    record PrinterWanted(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String queue) {}

    record PrinterChanged(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String queue,
            boolean inUse) {}

    @GetMapping
    List<PrinterView> list(Actor by) {
        by.mayDo(Deed.READ);
        return views();
    }

    private List<PrinterView> views() {
        return printers.all().stream().map(PrinterView::of).toList();
    }

    @PostMapping
    @Needs(Deed.SET_PRINTERS)
    List<PrinterView> add(Actor by, @Valid @RequestBody PrinterWanted wanted) {
        printers.add(by, wanted.name(), wanted.queue());
        return views();
    }

    @PostMapping("/{id}")
    @Needs(Deed.SET_PRINTERS)
    List<PrinterView> change(Actor by, @PathVariable long id, @Valid @RequestBody PrinterChanged wanted) {
        printers.change(by, new PrinterId(id), wanted.name(), wanted.queue(), wanted.inUse());
        return views();
    }
}
