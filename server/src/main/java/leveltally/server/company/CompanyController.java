package leveltally.server.company;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.company.Company;
import leveltally.core.company.FiscalYear;
import leveltally.core.paper.Picture;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import leveltally.server.pictures.Pictures;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The company and its policies. */
@RestController
@RequestMapping("/api/company")
@Needs(Deed.READ)
class CompanyController {
    private final Companies companies;
    private final Pictures pictures;

    CompanyController(Companies companies, Pictures pictures) {
        this.pictures = pictures;
        this.companies = companies;
    }

    /** What is kept; empty texts and the usual days before the company is set up. */
    record CompanyView(
            String name,
            List<String> address,
            int graceDays,
            int staleDays,
            String zone,
            int firstMonth,
            boolean oneTimeByTwo,
            long version,
            boolean mayChange,
            @Nullable LogoView logo) {}

    /** @param dots across, of a picture that is not sharp at any size; 0 otherwise */
    record LogoView(long picture, int dots) {}

    /** A PNG or SVG in base 64; empty for none. */
    record LogoWanted(@NotNull String content) {}

    private @Nullable LogoView logo() {
        Picture logo = companies.logo();
        return logo == null ? null : new LogoView(logo.id(), pictures.dotsAcross(logo.id()));
    }

    record CompanyWanted(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 20) List<@NotNull @Size(max = 200) String> address,
            int graceDays,
            int staleDays,
            @NotNull @Size(max = 60) String zone,
            int firstMonth,
            boolean oneTimeByTwo,
            long version) {}

    @GetMapping
    CompanyView company(Actor by) {
        by.mayDo(Deed.READ);
        Companies.Seen seen = companies.seen();
        boolean mayChange = Deed.SET_COMPANY.allowedTo(by.roles());
        Company company = seen.company();
        return company == null
                ? new CompanyView(
                        "", List.of(), 0, Company.USUAL_STALE_DAYS, "", 1, true, seen.version(), mayChange, null)
                : new CompanyView(
                        company.name(),
                        company.address(),
                        company.graceDays(),
                        company.staleDays(),
                        company.zone() == null ? "" : company.zone().getId(),
                        company.year().first().getValue(),
                        company.oneTimeByTwo(),
                        seen.version(),
                        mayChange,
                        logo());
    }

    @PostMapping
    @Needs(Deed.SET_COMPANY)
    CompanyView set(Actor by, @Valid @RequestBody CompanyWanted wanted) {
        companies.set(
                by,
                new Company(
                        wanted.name(),
                        wanted.address(),
                        wanted.graceDays(),
                        wanted.staleDays(),
                        Company.zone(wanted.zone()),
                        FiscalYear.beginning(wanted.firstMonth()),
                        wanted.oneTimeByTwo()),
                wanted.version());
        return company(by);
    }

    @PostMapping("/logo")
    @Needs(Deed.SET_COMPANY)
    CompanyView setLogo(Actor by, @Valid @RequestBody LogoWanted wanted) {
        companies.setLogo(by, wanted.content());
        return company(by);
    }
}
