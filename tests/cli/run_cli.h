#pragma once
// The real program on real files.

#include <sys/wait.h>

#include <cstdio>
#include <nlohmann/json.hpp>

#include "support/geometry.h"
#include "support/places.h"

namespace erdwerk::test {

struct Run {
    int exit = -1;
    std::string out;
    std::string err;
    [[nodiscard]] nlohmann::json parsed() const { return nlohmann::json::parse(out); }
};

inline Run cli(const Folder& folder, const std::string& arguments) {
    const std::string err = folder / "stderr.txt";
    const std::string command = "cd " + (folder / ".") + " && " + cliBinary + " " + arguments + " 2>" + err;
    Run run;
    std::FILE* pipe = ::popen(command.c_str(), "r");
    char buffer[4096];
    std::size_t n = 0;
    while ((n = std::fread(buffer, 1, sizeof buffer, pipe)) > 0) run.out.append(buffer, n);
    run.exit = WEXITSTATUS(::pclose(pipe));
    run.err = contentOf(err);
    return run;
}

}  // namespace erdwerk::test
