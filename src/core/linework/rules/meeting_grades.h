#pragma once
// A grade point whose place is solved: one grade from the previous control meets another into the next,
// "meet 2% -3%" (a high point), "meet 50:1 1 in 20".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct MeetingGrades {
    Grade in;   ///< from the previous control to here
    Grade out;  ///< from here to the next
    std::string typedIn = {};
    std::string typedOut = {};
    friend bool operator==(const MeetingGrades&, const MeetingGrades&) = default;
};

template <>
struct RuleKind<MeetingGrades> {
    static constexpr std::string_view name = "meet";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = true;
    static constexpr bool looksAhead = true;
    static constexpr Standing standing = Standing::Solved;
    static constexpr bool straight = true;
    static void references(const MeetingGrades&, const std::function<void(ObjectId)>&) {}
    /// BadInput when the grades do not meet strictly between the controls on both sides.
    static Result<double> solve(const MeetingGrades& rule, Asking& ask);
    static MeetingGrades reversed(const MeetingGrades& rule);
    static std::string text(const MeetingGrades& rule, const RuleNames&);
    static std::optional<Result<MeetingGrades>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const MeetingGrades& rule);
    static Result<MeetingGrades> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
