// Random webs of lines against a solver of the test.

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/base/display.h"
#include "named_lines.h"

namespace erdwerk::linework {
namespace {

// ---- random webs against a solver of their own

/// Rows east-west at y = 0, 10 … and columns north-south at x = 5, 15 …: every nearest place and crossing is
/// known by hand. Heights are found by going over all controls until nothing more can be found.
struct RandomWeb {
    struct Control {
        double at = 0;
        enum Sort {
            Fixed,
            Rise,
            Grade,
            ToRise,
            ToGrade,
            Line,
            Crossing,
            Surface,
            Between,
            None
        } sort = Fixed;
        double value = 0;  ///< height, rise, grade, amount or crossfall
        std::size_t other = 0;
        bool falls = false;
        double curve = 0;
        std::optional<double> height;
    };
    struct Line {
        bool row = true;
        double offset = 0;
        std::vector<Control> controls;  ///< every vertex; the first and last are corners
    };
    std::vector<Line> lines;
    static constexpr double length = 100;

    [[nodiscard]] static bool isControl(const Control& c) {
        return c.sort != Control::Between && c.sort != Control::None;
    }
    static const Control* beside(const Line& line, std::size_t i, int step) {
        for (auto k = static_cast<std::ptrdiff_t>(i) + step;
             k >= 0 && k < static_cast<std::ptrdiff_t>(line.controls.size()); k += step)
            if (isControl(line.controls[static_cast<std::size_t>(k)]))
                return &line.controls[static_cast<std::size_t>(k)];
        return nullptr;
    }
    [[nodiscard]] static Vec2 place(const Line& line, double at) {
        return line.row ? Vec2{at, line.offset} : Vec2{line.offset, at};
    }

    /// The finished height of a line, as far as it is known yet.
    [[nodiscard]] std::optional<double> finished(const Line& line, double at) const {
        for (std::size_t i = 0; i + 1 < line.controls.size(); ++i) {
            const auto& a = line.controls[i];
            const auto& b = line.controls[i + 1];
            if (at < a.at || at > b.at) continue;
            const bool onA = at == a.at;
            const bool onB = at == b.at;
            if (onA && !a.height && a.sort == Control::None && i > 0) continue;
            if (onB && !b.height) continue;
            if ((!a.height && !onB) || (!b.height && !onA)) return std::nullopt;
            const double straight = onA   ? *a.height
                                    : onB ? *b.height
                                          : *a.height + (*b.height - *a.height) * (at - a.at) / (b.at - a.at);
            for (std::size_t k = 1; k + 1 < line.controls.size(); ++k) {
                const auto& c = line.controls[k];
                if (c.curve == 0 || std::abs(at - c.at) >= c.curve / 2) continue;
                const auto* before = beside(line, k, -1);
                const auto* after = beside(line, k, 1);
                if (before == nullptr || after == nullptr) continue;
                // Not yet known is not the same as straight.
                if (!before->height || !after->height || !c.height) return std::nullopt;
                const double in = (*c.height - *before->height) / (c.at - before->at);
                const double out = (*after->height - *c.height) / (after->at - c.at);
                const double x = at - (c.at - c.curve / 2);
                return *c.height - in * c.curve / 2 + in * x + (out - in) * x * x / (2 * c.curve);
            }
            return straight;
        }
        return std::nullopt;
    }

    std::optional<double> attempt(const Line& line, std::size_t i) const {
        const Control& c = line.controls[i];
        const auto* before = beside(line, i, -1);
        const auto* after = beside(line, i, 1);
        const bool hasBefore = before != nullptr && before->height;
        const bool hasAfter = after != nullptr && after->height;
        switch (c.sort) {
            case Control::Fixed:
                return c.value;
            case Control::Rise:
                return hasBefore ? std::optional(*before->height + c.value) : std::nullopt;
            case Control::Grade:
                return hasBefore ? std::optional(*before->height + c.value * (c.at - before->at))
                                 : std::nullopt;
            case Control::ToRise:
                return hasAfter ? std::optional(*after->height - c.value) : std::nullopt;
            case Control::ToGrade:
                return hasAfter ? std::optional(*after->height - c.value * (after->at - c.at)) : std::nullopt;
            case Control::Surface:
                return 50 + 0.1 * place(line, c.at).x + c.value;
            case Control::Between:
                if (!hasBefore || !hasAfter) return std::nullopt;
                return *before->height +
                       (*after->height - *before->height) * (c.at - before->at) / (after->at - before->at);
            case Control::Line: {
                const auto& other = lines[c.other];
                const Vec2 here = place(line, c.at);
                const double at = std::clamp(other.row ? here.x : here.y, 0.0, length);
                const auto h = finished(other, at);
                if (!h) return std::nullopt;
                const double away = geometry::distance(place(other, at), here);
                return c.falls ? *h + c.value * away : *h + c.value;
            }
            case Control::Crossing: {
                const auto h = finished(lines[c.other], line.offset);
                return h ? std::optional(*h + c.value) : std::nullopt;
            }
            case Control::None:
                break;
        }
        return std::nullopt;
    }

    void solve() {
        for (bool more = true; more;) {
            more = false;
            for (auto& line : lines)
                for (std::size_t i = 0; i < line.controls.size(); ++i)
                    if (!line.controls[i].height)
                        if (const auto h = attempt(line, i)) {
                            line.controls[i].height = h;
                            more = true;
                        }
        }
    }

    explicit RandomWeb(unsigned seed) {
        std::mt19937 random(seed);
        const auto pick = [&](int n) { return std::uniform_int_distribution<int>(0, n - 1)(random); };
        const auto real = [&](double a, double b) {
            return std::uniform_real_distribution<double>(a, b)(random);
        };
        const int rows = 2 + pick(4);
        const int columns = 1 + pick(4);
        for (int r = 0; r < rows + columns; ++r) {
            Line line;
            line.row = r < rows;
            line.offset = line.row ? 10.0 * r : 5.0 + 10 * (r - rows);
            lines.push_back(line);
        }
        for (auto& line : lines) {
            for (int k = 0; k <= 5; ++k) {
                Control c;
                c.at = 20.0 * k + (k > 0 && k < 5 ? real(-6, 6) : 0.0);
                const bool corner = k == 0 || k == 5;
                c.sort = static_cast<Control::Sort>(pick(10));
                if (k == 0 && (c.sort == Control::Rise || c.sort == Control::Grade)) c.sort = Control::Fixed;
                if (k == 5 && (c.sort == Control::ToRise || c.sort == Control::ToGrade))
                    c.sort = Control::Fixed;
                if (corner && c.sort == Control::Crossing) c.sort = Control::Surface;
                c.value = c.sort == Control::Fixed ? real(90, 110) : real(-0.1, 0.1);
                c.falls = pick(2) == 0;
                if (c.sort == Control::Line || c.sort == Control::Crossing) {
                    do c.other = static_cast<std::size_t>(pick(static_cast<int>(lines.size())));
                    while (&lines[c.other] == &line);
                }
                if (c.sort == Control::Crossing) {
                    if (lines[c.other].row == line.row)
                        c.sort = Control::Surface;
                    else
                        c.at = lines[c.other].offset;
                }
                if (!corner && isControl(c) && pick(2) == 0) c.curve = real(1, 3);
                line.controls.push_back(c);
            }
            std::stable_sort(line.controls.begin() + 1, line.controls.end() - 1,
                             [](const Control& a, const Control& b) { return a.at < b.at; });
            for (std::size_t i = 1; i < line.controls.size();)
                if (line.controls[i].at - line.controls[i - 1].at < 3.1 && i + 1 < line.controls.size())
                    line.controls.erase(line.controls.begin() + static_cast<std::ptrdiff_t>(i));
                else
                    ++i;
            if (line.controls.size() > 2 && line.controls.back().at - (line.controls.end() - 2)->at < 3.1)
                line.controls.erase(line.controls.end() - 2);
        }
    }

    /// Vertical curves only where their heights are there whatever happens: without them a line is straight.
    void thinCurves() {
        const auto sure = [](const Control* c) {
            return c != nullptr && (c->sort == Control::Fixed || c->sort == Control::Surface);
        };
        for (auto& line : lines)
            for (std::size_t i = 0; i < line.controls.size(); ++i)
                if (!sure(beside(line, i, -1)) || !sure(beside(line, i, 1)) || !sure(&line.controls[i]))
                    line.controls[i].curve = 0;
    }

    /// The same as rules in our own notation.
    [[nodiscard]] Lines typed() const {
        Lines out;
        std::vector<std::string> names;
        for (std::size_t i = 0; i < lines.size(); ++i) names.push_back("line " + std::to_string(i));
        out.name(names);
        for (const auto& line : lines) {
            std::string rules;
            for (std::size_t i = 0; i < line.controls.size(); ++i) {
                const auto& c = line.controls[i];
                const auto sign = signedText(c.value);
                const auto percent = formatExact(c.value * 100) + "%";
                if (i > 0) rules += "; ";
                if (i > 0 && i + 1 < line.controls.size()) rules += "@" + formatExact(c.at) + " ";
                const std::string text[] = {
                    formatExact(c.value),
                    sign,
                    percent,
                    "to " + sign,
                    "to " + percent,
                    "=" + names[c.other] + (c.falls ? signedText(c.value * 100) + "%" : sign),
                    "x " + names[c.other] + sign,
                    "=Ground" + sign,
                    "~",
                    ""};
                rules += text[c.sort];
                if (c.curve > 0) rules += " curve " + formatExact(c.curve);
            }
            out.add({place(line, 0), place(line, length)}, rules);
        }
        return out;
    }
};

TEST(HeightSolver, RandomWebsAgreeWithASolverOfTheTest) {
    std::size_t heights = 0;
    std::size_t missing = 0;
    std::size_t curves = 0;
    for (unsigned seed = 1; seed <= 500; ++seed) {
        RandomWeb web(seed);
        web.thinCurves();
        web.solve();
        const auto typed = web.typed();
        const auto solved = typed.solve();
        for (std::size_t l = 0; l < solved.size(); ++l) {
            curves += solved[l].curves.size();
            for (std::size_t i = 0; i < solved[l].vertices.size(); ++i) {
                const auto& want = web.lines[l].controls[i].height;
                const auto& got = solved[l].vertices[i];
                ASSERT_EQ(want.has_value(), got.height.has_value())
                    << "seed " << seed << ", line " << l << ", point " << i << ": " << got.problem << "\n"
                    << rulesText(typed.lines[l], typed.ruleNames());
                if (!want) {
                    ++missing;
                    continue;
                }
                ++heights;
                ASSERT_NEAR(*want, *got.height, 1e-9) << "seed " << seed << ", line " << l << ", point " << i;
            }
        }
    }
    // Both kinds were really there.
    EXPECT_GT(heights, 5000U);
    EXPECT_GT(missing, 500U);
    EXPECT_GT(curves, 100U);
}

}  // namespace
}  // namespace erdwerk::linework
