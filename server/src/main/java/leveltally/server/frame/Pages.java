package leveltally.server.frame;

import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Sends the addresses of views to the one page there is. */
@Configuration
class Pages implements WebMvcConfigurer {
    @Override
    public void addViewControllers(ViewControllerRegistry views) {
        for (String view : List.of(
                "/",
                "/{view:[a-z-]+}",
                "/{view:(?!api)[a-z-]+}/{id:[A-Za-z0-9-]+}",
                "/{view:(?!api)[a-z-]+}/{id:[0-9]+}/{part:[a-z-]+}")) {
            views.addViewController(view).setViewName("forward:/index.html");
        }
    }
}
