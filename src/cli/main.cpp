#include <unistd.h>

#include <CLI/CLI.hpp>
#include <atomic>
#include <csignal>
#include <cstdio>
#include <iostream>
#include <map>

#include "cli/operation.h"

namespace {

using namespace erdwerk;

int report(const Error& error) {
    cli::say(error.message());
    return 2;
}

std::string textOf(const nlohmann::ordered_json& json) {
    std::string out;
    for (const auto& [key, value] : json.items())
        out += key + ": " + (value.is_string() ? value.get<std::string>() : value.dump()) + "\n";
    return out;
}

/// Markdown of all commands, for docs/command-line.md.
std::string referencePage() {
    std::string out =
        "# erdwerk-cli\n\nMade by `erdwerk-cli reference`; every example runs on the demo data.\n";
    for (const auto& operation : cli::operations()) {
        out +=
            "\n## " + operation.name + "\n\n" + operation.summary + "\n\n    " + operation.example + "\n\n";
        cli::Options options;
        operation.declare(options);
        for (const cli::Option& option : options.all())
            out += "- `" + option.names + "`: " + option.help + "\n";
    }
    return out;
}

std::atomic<bool> stopAsked{false};

/// Progress in one line that is written over, when a person looks on; stopping on Ctrl+C.
Context watched() {
    Context context;
    context.cancelFlag = &stopAsked;
    std::signal(SIGINT, [](int) { stopAsked = true; });  // NOLINT(cert-err33-c)
    if (::isatty(STDERR_FILENO) == 0) return context;
    context.progress = [last = std::make_shared<std::atomic<int>>(-1)](double share) {
        const int percent = static_cast<int>(share * 100);
        if (last->exchange(percent) == percent) return;
        std::fprintf(stderr, percent >= 100 ? "\r     \r" : "\r%3d %%", percent);
        std::fflush(stderr);
    };
    return context;
}

int execute(const cli::Operation& operation, const cli::Arguments& arguments, bool json) {
    const auto outcome = operation.run(arguments);
    if (!outcome) {
        if (outcome.error().code != ErrorCode::Cancelled) return report(outcome.error());
        cli::say("stopped; nothing was written");
        return 130;
    }
    if (json)
        std::cout << outcome->json.dump(2) << "\n";
    else
        std::cout << (outcome->text.empty() ? textOf(outcome->json) : outcome->text);
    std::cout.flush();
    return outcome->dataIsWrong ? 1 : 0;
}

}  // namespace

int main(int argc, char** argv) try {
    CLI::App app(
        "Erdwerk without a window: surfaces, profiles, volumes, parcels and plans from open-format files.",
        "erdwerk-cli");
    app.require_subcommand(1);
    bool json = false;
    std::map<std::string, cli::Arguments> given;  // of each command
    for (const auto& operation : cli::operations()) {
        auto* command = app.add_subcommand(operation.name, operation.summary);
        cli::Arguments& arguments = given[operation.name];
        cli::Options options;
        operation.declare(options);
        arguments.declare(*command, options);
        command->add_flag("--json", json, "print one JSON object");
        command->add_flag("--with-journal", arguments.withJournal,
                          "projects with what is unsaved beside them");
        command->footer("Example: " + operation.example);
    }
    std::string topic;
    auto* help = app.add_subcommand("help", "Explain a command");
    help->add_option("command", topic, "the command");
    app.add_subcommand("reference", "Print the reference page of all commands");
    try {
        app.parse(argc, argv);
    } catch (const CLI::CallForHelp& e) {
        return app.exit(e);
    } catch (const CLI::ParseError& e) {
        std::string text = e.what();
        for (char& c : text)
            if (c == '\n') c = ' ';
        cli::say(text);
        return 2;
    }
    if (help->parsed()) {
        try {
            std::cout << (topic.empty() ? app.help() : app.get_subcommand(topic)->help());
        } catch (const CLI::OptionNotFound&) {
            return report({ErrorCode::NotFound, "there is no command " + topic, {}, 0});
        }
        return 0;
    }
    if (app.got_subcommand("reference")) {
        std::cout << referencePage();
        return 0;
    }
    for (const auto& operation : cli::operations())
        if (app.got_subcommand(operation.name)) {
            cli::Arguments& arguments = given[operation.name];
            arguments.context = watched();
            cli::sayUnsaved(arguments);
            return execute(operation, arguments, json);
        }
    return 2;
} catch (const std::exception& e) {
    std::cerr << "erdwerk-cli: " << e.what() << "\n";
    return 2;
}
