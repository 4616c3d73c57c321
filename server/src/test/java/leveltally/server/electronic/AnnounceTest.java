package leveltally.server.electronic;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static leveltally.server.electronic.Electronic.account;
import static leveltally.server.electronic.Electronic.ach;
import static leveltally.server.electronic.Electronic.approvedToday;
import static leveltally.server.electronic.Electronic.vendor;
import static leveltally.server.electronic.Electronic.wanted;
import static leveltally.server.electronic.Electronic.way;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.EntryClass;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.batches.Withdrawing;
import leveltally.server.electronic.FilingView.FilingLine;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;

/** Accounts announced to the bank before money goes there, where it wants that. */
class AnnounceTest {
    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static WayId announcing() {
        AchAgreement plain = ach(EntryClass.CCD);
        return way(wanted(new AchAgreement(plain.sender(), false, EntryClass.CCD, 3)));
    }

    private static Actor on(LocalDate day) {
        Actor ines = ines();
        return new Actor(ines.person(), ines.name(), ines.roles(), day, ines.now(), "");
    }

    private static List<FilingLine> lines(BatchId batch, LocalDate day) {
        return bean(FilingViews.class).of(on(day), batch).payments();
    }

    @Test
    void aNewAccountIsAnnouncedAndPaidSomeBankingDaysLater() {
        WayId way = announcing();
        BankDetails bank = account();
        BatchId batch = approvedToday(
                way,
                App.invoice(vendor(PaymentMethod.ACH, bank), "50.00"),
                App.invoice(vendor(PaymentMethod.ACH, bank), "60.00"));
        assertThatThrownBy(() -> bean(Filing.class).file(ines(), batch)).hasMessageContaining("was not announced");
        assertThat(bean(FilingViews.class).of(ines(), batch).toAnnounce())
                .as("two payments to one account")
                .isEqualTo(1);
        long file = bean(Filing.class).announce(ines(), batch);
        assertThat(number("SELECT items FROM bank_file WHERE id = ?", file)).isZero();
        assertThat(number("SELECT total_minor FROM bank_file WHERE id = ?", file))
                .isZero();
        assertThatThrownBy(() -> bean(Filing.class).announce(ines(), batch))
                .hasMessageContaining("No account of this batch waits");
        assertThat(lines(batch, App.TODAY))
                .allSatisfy(line -> assertThat(line.why()).contains("nobody knows yet"));
        assertThat(bean(FilingViews.class).of(ines(), batch).files())
                .singleElement()
                .satisfies(one -> assertThat(one.announced()).isEqualTo(1));
        bean(BankAnswers.class).accepted(ines(), file, "");
        assertThat(lines(batch, App.TODAY))
                .allSatisfy(line -> assertThat(line.why()).contains("money may go there from"));
        // what pays on a day that is late enough goes
        LocalDate effective = jdbc().sql("SELECT pays_on FROM bank_file WHERE id = ?")
                .param(file)
                .query(LocalDate.class)
                .single();
        assertThat(bean(FilingViews.class).of(on(effective.plusDays(10)), batch).toFile())
                .as("the day has passed, so it needs another check date")
                .isZero();
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        BatchId later = Electronic.approvedOn(
                way, effective.plusDays(6), App.invoice(vendor(PaymentMethod.ACH, bank), "70.00"));
        long paying = bean(Filing.class).file(ines(), later).files().get(0);
        bean(BankAnswers.class).accepted(ines(), paying, "");
        bean(Posting.class).post(ines(), later);
        // an account that was paid so is known, whoever it is of
        BatchId known = approvedToday(way, App.invoice(vendor(PaymentMethod.ACH, bank), "80.00"));
        assertThat(bean(FilingViews.class).of(ines(), known).toAnnounce()).isZero();
        bean(Withdrawing.class).withdraw(ines(), known, App.version(known));
    }

    @Test
    void whatTheBankRefusesIsAnnouncedAgain() {
        WayId way = announcing();
        BatchId batch = approvedToday(way, App.invoice(vendor(PaymentMethod.ACH, account()), "50.00"));
        long first = bean(Filing.class).announce(ines(), batch);
        bean(BankAnswers.class).refused(ines(), first, "not today");
        long second = bean(Filing.class).announce(ines(), batch);
        assertThat(second).isGreaterThan(first);
        // its payee's bank may not know the account
        long id = number("SELECT id FROM announcement WHERE file_id = ?", second);
        bean(BankAnswers.class).accepted(ines(), second, "");
        bean(Announcements.class).sentBack(id, "R03: no account");
        assertThat(lines(batch, App.TODAY))
                .singleElement()
                .satisfies(line ->
                        assertThat(line.why()).contains("R03: no account").contains("Propose other bank details"));
        assertThatThrownBy(() -> jdbc().sql("UPDATE announcement SET bank_key = 'x' WHERE id = ?")
                        .param(id)
                        .update())
                .isInstanceOf(DataAccessException.class);
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
    }
}
