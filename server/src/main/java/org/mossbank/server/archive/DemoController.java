package org.mossbank.server.archive;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
class DemoController {
    private final DemoService demo;

    DemoController(DemoService demo) {
        this.demo = demo;
    }

    /** The sign-ins that the demo offers; in demo mode alone. */
    @GetMapping("/api/demo/sign-ins")
    List<DemoService.DemoSignIn> signIns() {
        return demo.signIns();
    }
}
