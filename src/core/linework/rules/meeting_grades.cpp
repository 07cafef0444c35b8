#include "core/linework/rules/meeting_grades.h"

#include <cmath>
#include <sstream>
#include <vector>

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

namespace {

std::string gradeText(Grade grade, const std::string& typed) {
    return typed.empty() ? formatExact(std::round(grade.percent() * 1e9) / 1e9) + "%" : typed;
}

/// The grades or ratios of a text, "1 in 3" as one.
std::vector<std::string> gradeWords(const std::string& text) {
    std::istringstream in(text);
    std::vector<std::string> out;
    bool joins = false;
    for (std::string word; in >> word;) {
        if (word == "in" && !out.empty()) {
            out.back() += " in ";
            joins = true;
        } else if (joins) {
            out.back() += word;
            joins = false;
        } else {
            out.push_back(word);
        }
    }
    return out;
}

}  // namespace

Result<double> RuleKind<MeetingGrades>::solve(const MeetingGrades& rule, Asking& ask) {
    const auto before = ask.previous();
    if (!before) return tl::unexpected(before.error());
    const auto after = ask.next();
    if (!after) return tl::unexpected(after.error());
    // Two straights: h0 + in * run = h1 - out * (whole - run).
    const double whole = before->run + after->run;
    const double in = rule.in.riseOverRun();
    const double out = rule.out.riseOverRun();
    const double run = (after->height - before->height - out * whole) / (in - out);
    if (!(run > 0) || !(run < whole))
        return badInput("the grades do not meet between the controls on both sides");
    ask.standAfterPrevious(run);
    return before->height + in * run;
}

MeetingGrades RuleKind<MeetingGrades>::reversed(const MeetingGrades& rule) {
    return {Grade::riseOverRun(-rule.out.riseOverRun()), Grade::riseOverRun(-rule.in.riseOverRun()),
            negatedText(rule.typedOut), negatedText(rule.typedIn)};
}

std::string RuleKind<MeetingGrades>::text(const MeetingGrades& rule, const RuleNames&) {
    return "meet " + gradeText(rule.in, rule.typedIn) + " " + gradeText(rule.out, rule.typedOut);
}

std::optional<Result<MeetingGrades>> RuleKind<MeetingGrades>::parse(const std::string& text,
                                                                    const RuleNames&) {
    const std::string word = plainWord(text);
    if (word.rfind("meet ", 0) != 0) return std::nullopt;
    const auto words = gradeWords(word.substr(5));
    std::vector<Grade> grades;
    for (const auto& typed : words) {
        const auto entry = parseHeightEntry(typed);
        if (const auto* grade = entry ? std::get_if<TypedGrade>(&*entry) : nullptr)
            grades.push_back(grade->grade);
    }
    if (words.size() != 2 || grades.size() != 2)
        return Result<MeetingGrades>(badInput("'" + text + "' needs two grades or ratios, like meet 2% -3%"));
    return Result<MeetingGrades>(MeetingGrades{grades[0], grades[1], words[0], words[1]});
}

RuleFields RuleKind<MeetingGrades>::write(const MeetingGrades& rule) {
    RuleFields out{{{"in", rule.in.riseOverRun()}, {"out", rule.out.riseOverRun()}}, {}, {}};
    if (!rule.typedIn.empty()) out.words["typed-in"] = rule.typedIn;
    if (!rule.typedOut.empty()) out.words["typed-out"] = rule.typedOut;
    return out;
}

Result<MeetingGrades> RuleKind<MeetingGrades>::read(const RuleFields& fields) {
    const auto in = fields.figure("in");
    const auto out = fields.figure("out");
    if (!in) return tl::unexpected(in.error());
    if (!out) return tl::unexpected(out.error());
    return MeetingGrades{Grade::riseOverRun(*in), Grade::riseOverRun(*out), fields.word("typed-in"),
                         fields.word("typed-out")};
}

}  // namespace erdwerk::linework
