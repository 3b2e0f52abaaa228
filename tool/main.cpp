// coldbrick: draws scenes written as text. Arguments in, messages out.
#include "describe.hpp"
#include "output.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/scene.hpp"

#include <algorithm>
#include <cstdio>
#include <new>
#include <string>
#include <string_view>
#include <vector>

#include <CLI/CLI.hpp>
#include <fmt/format.h>

namespace {

// What is wrong with a call, in our words.
std::string words_of(const CLI::ParseError& error) {
    auto text = std::string{error.what()};
    const auto end = text.find(" is required");
    const auto colon = text.rfind(": ");
    const auto behind_colon = colon == std::string::npos ? text : text.substr(colon + 2);
    if (error.get_name() == "RequiredError") return text.substr(0, end) + " is missing";
    if (error.get_name() == "ExtrasError") return "this has no place here: " + coldbrick::printable(behind_colon);
    if (error.get_name() == "ArgumentMismatch") return text.substr(0, text.find(':')) + " needs a value after it";
    if (error.get_name() == "ConversionError")
        return "this is no value for the option: " + coldbrick::printable(behind_colon);
    return text;
}

// Says so if the first word is no command.
void check_command(const CLI::App& app, int argc, const char* const* argv) {
    std::vector<std::string> names;
    for (const auto* const command : app.get_subcommands({})) names.push_back(command->get_name());
    const std::vector<std::string_view> known{names.begin(), names.end()};
    const auto list = fmt::format("{}", fmt::join(names, ", "));
    const auto first = std::string{argc > 1 ? argv[1] : ""};
    if (argc < 2) throw coldbrick::tool::WrongCall{"which command? There are " + list};
    if (first.starts_with("-") || std::find(names.begin(), names.end(), first) != names.end()) return;
    const auto near = coldbrick::nearest_word(first, known);
    throw coldbrick::tool::WrongCall{
        fmt::format("there is no command '{}'; {}", coldbrick::printable(first),
                    near.empty() ? "there are " + list : fmt::format("did you mean '{}'?", near))};
}

int complain(std::string_view message, coldbrick::tool::Exit code) {
    fmt::print(stderr, "{}\n", message);
    return static_cast<int>(code);
}

// What is given to --limit, of whatever command.
std::vector<std::string> limits_in(int argc, const char* const* argv) {
    constexpr std::string_view option = "--limit=";
    std::vector<std::string> words;
    for (int i = 1; i < argc; ++i) {
        const std::string_view word = argv[i];
        words.emplace_back(word.starts_with(option) ? word.substr(option.size()) : word);
    }
    return words;
}

int do_command(const CLI::App& app, const coldbrick::tool::Arguments& arguments) {
    if (app.got_subcommand("differ")) return coldbrick::tool::differ(arguments.differ);
    const auto done = [&] {
        if (app.got_subcommand("info")) return coldbrick::tool::info(arguments.info);
        if (app.got_subcommand("resave")) return coldbrick::tool::resave(arguments.resave);
        if (app.got_subcommand("pick")) return coldbrick::tool::pick(arguments.pick);
        if (app.got_subcommand("render")) return coldbrick::tool::render(arguments.render);
        if (app.got_subcommand("words")) return coldbrick::tool::words(arguments.words);
        if (app.got_subcommand("watch")) return coldbrick::tool::watch(arguments.watch);
        if (app.got_subcommand("look")) return coldbrick::tool::look(arguments.look);
        if (app.got_subcommand("explain")) return coldbrick::tool::explain(arguments.explain);
        if (app.got_subcommand("faces")) return coldbrick::tool::faces(arguments.faces);
        return coldbrick::tool::shapes(arguments.shapes);
    };
    return static_cast<int>(done());
}

int run(int argc, char** argv) {
    using coldbrick::tool::Exit;
    CLI::App app{"", "coldbrick"};
    coldbrick::tool::Arguments arguments;
    coldbrick::tool::describe(app, arguments);
    try {
        check_command(app, argc, argv);
        app.parse(argc, argv);
        return do_command(app, arguments);
    } catch (const CLI::ParseError& error) {
        if (error.get_exit_code() == 0) return app.exit(error);
        const auto commands = app.get_subcommands();
        const auto of = commands.empty() ? std::string{} : " " + commands.front()->get_name();
        return complain(fmt::format("coldbrick{}: {}\n    'coldbrick{} --help' has more", of, words_of(error), of),
                        Exit::wrong_call);
    } catch (const coldbrick::tool::WrongCall& error) {
        return complain(fmt::format("coldbrick: {}", error.what()), Exit::wrong_call);
    } catch (const coldbrick::Error& error) {
        return complain(error.what() + coldbrick::tool::limit_advice(error.what(), limits_in(argc, argv)), Exit::fault);
    } catch (const std::bad_alloc&) {
        return complain("coldbrick: there is not enough memory", Exit::fault);
    }
}

}  // namespace

int main(int argc, char** argv) {
    try {
        const auto code = run(argc, argv);
        // What was printed must have arrived.
        if (std::fflush(stdout) == 0 && std::ferror(stdout) == 0) return code;
        return complain("standard output: cannot be written", coldbrick::tool::Exit::fault);
    } catch (const std::bad_alloc&) {
        std::fputs("coldbrick: there is not enough memory\n", stderr);
        return static_cast<int>(coldbrick::tool::Exit::fault);
    } catch (const std::exception& error) {
        return complain(fmt::format("coldbrick: {}", error.what()), coldbrick::tool::Exit::fault);
    }
}
