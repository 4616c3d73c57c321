package leveltally.browser;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** A run onto paper as it goes wrong: in parts, by two people, through a jam; and its payees are told by mail. */
class PaperTest {
    private static final Desk DESK = Desk.shared();

    private static void numberInTheTray() {
        DESK.type(DESK.find(By.cssSelector("[role=dialog] label b")).getText());
    }

    private static void wishAdviceByMail() {
        DESK.go("/vendors?text=Redshank");
        DESK.pick("Redshank Refrigeration");
        DESK.press(Keys.ENTER);
        DESK.click("Change these…");
        DESK.choose("Remittance advice", "as a PDF by mail");
        // without an address it is refused, and nothing typed is lost
        DESK.confirm();
        DESK.see("Advice by mail needs an address");
        DESK.fill("Mail address for advice", "desk@redshank.example");
        DESK.confirmed();
        DESK.see("to desk@redshank.example");
    }

    @Test
    void inPartsByTwoPeopleThroughAJamAndToldByMail() {
        DESK.sitDown("Ines Okafor");
        wishAdviceByMail();
        String batch = ApprovalTest.batchOf(
                List.of("Redshank Refrigeration", "Quayside Canteen Equipment", "Kelp & Barley Bakehouse"),
                "In parts",
                true);
        for (String approver : List.of("Maren Lindqvist", "Aldo Ferreira")) {
            ApprovalTest.finish("In parts", approver);
        }

        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.click("Take the turn");
        DESK.confirmed();
        // somebody else sees whose turn it is, and whoever has it resumes
        DESK.sitDown("Tomas Brandt");
        DESK.go("/print/" + batch);
        DESK.see("Ines Okafor has the turn");
        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.press(Keys.HOME);
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.click("Print the 2 selected");
        numberInTheTray();
        DESK.click("stand-in");
        new Select(DESK.find(By.cssSelector("[role=dialog] select"))).selectByValue("JAM");
        DESK.confirmed();
        DESK.see("torn");
        DESK.click("1 printed well: all good");
        DESK.see("1 without an answer");
        DESK.pick("torn");
        DESK.click("Spoiled…");
        DESK.fill("What happened", "torn in the jam");
        DESK.confirmed();
        DESK.see("2 to number");

        // the rest by another, who finds it as it stands
        DESK.sitDown("Tomas Brandt");
        DESK.go("/print/" + batch);
        DESK.see("2 to number");
        DESK.click("Take the turn");
        DESK.confirmed();
        DESK.click("Print 2 checks");
        numberInTheTray();
        DESK.confirmed();
        DESK.click("2 printed well: all good");
        DESK.click("go to posting");
        DESK.click("Post ");
        DESK.confirmed();
        DESK.see("In parts, posted");

        DESK.go("/mail?whose=PAYEES");
        DESK.until(
                "its mail is sent",
                () -> DESK.rows().stream()
                        .anyMatch(row -> row.contains("Redshank Refrigeration") && row.contains("sent")));
        DESK.pick("Redshank Refrigeration");
        DESK.see("desk@redshank.example");
        DESK.see("is listed in the PDF that comes with this mail");
        DESK.click("It came back…");
        DESK.fill("What was said", "no such mailbox");
        DESK.confirmed();
        DESK.see("came back");
        DESK.click("The check, and to send it again");
        DESK.click("Send it again by mail…");
        DESK.fill("To", "books@redshank.example");
        DESK.confirmed();
        DESK.see("books@redshank.example: ");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    /** Block by block onto an empty sheet, by keyboard and typed measures; kept after its test page, and printed on. */
    @Test
    void fromAnEmptyPageToAPrintedRun() {
        DESK.sitDown("Ruth Castellane");
        DESK.go("/bank-accounts");
        DESK.pick("Operations");
        DESK.press(Keys.ENTER);
        DESK.click("How they stand on paper");
        DESK.see("nothing is wrong with it");
        DESK.click("Begin from another…");
        DESK.click("Letter, check on top, empty");
        DESK.see("without it this is no check");
        put("On the check", "number", "150", "8", "50", "5");
        put("On the check", "date", "150", "15", "50", "5");
        put("On the check", "payee", "12.7", "30", "130", "8");
        put("On the check", "amount", "150", "29", "50", "9");
        put("On the check", "amount in words", "12.7", "42", "187", "9");
        put("On the check", "signature line", "130", "58", "66", "12");
        put("On the stub", "lines", "12.7", "8", "187", "80");
        DESK.click("Show the advice");
        put("On the advice", "payee", "12.7", "20", "150", "6");
        put("On the advice", "lines", "12.7", "40", "187", "220");
        DESK.see("nothing is wrong with it");
        DESK.click("Test page");
        RoadTest.testPage();
        DESK.click("Keep it…");
        DESK.fill("What changed", "our own, from an empty sheet");
        DESK.confirmed();
        DESK.see("“our own, from an empty sheet”");

        DESK.sitDown("Ines Okafor");
        String batch = ApprovalTest.batchOf(List.of("Puffin Point Water"), "Own layout", true);
        for (String approver : List.of("Maren Lindqvist", "Aldo Ferreira")) {
            ApprovalTest.finish("Own layout", approver);
        }
        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.click("Take the turn");
        DESK.confirmed();
        DESK.click("Print 1 check");
        numberInTheTray();
        DESK.confirmed();
        DESK.see("Puffin Point Water");
        DESK.click("printed well: all good");
        DESK.click("go to posting");
        DESK.click("Post ");
        DESK.confirmed();
        DESK.see("Own layout, posted");
    }

    private static void put(String part, String block, String left, String top, String wide, String high) {
        DESK.find(By.xpath("//section[@aria-label='" + part + "']//button[normalize-space() = '" + block + "']"))
                .click();
        DESK.fill("From the left, mm", left);
        DESK.fill("From the top, mm", top);
        DESK.fill("Wide, mm", wide);
        DESK.fill("High, mm", high);
    }
}
