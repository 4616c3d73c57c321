package leveltally.server.demo;

import leveltally.server.frame.Settings;
import leveltally.server.people.People;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/** Loads the demo once, before the application says it is ready; outside demo mode it does nothing. */
@Component
class DemoLoader implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);

    private final Settings settings;
    private final People people;
    private final DemoCompany company;
    private final DemoStory story;

    DemoLoader(Settings settings, People people, DemoCompany company, DemoStory story) {
        this.settings = settings;
        this.people = people;
        this.company = company;
        this.story = story;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (settings.demo() && people.nobodyExists()) {
            long start = System.nanoTime();
            story.tell(company.build(leveltally.server.people.DemoPassword.VALUE));
            LOG.info("demo data loaded in {} ms", (System.nanoTime() - start) / 1_000_000);
        }
    }
}
