#include "core/operations/derived_lines.h"

#include "core/base/notation.h"
#include "core/derive/follow.h"
#include "core/derive/line_result.h"
#include "core/derive/route_result.h"
#include "core/linework/offset_row.h"
#include "core/objects/group.h"
#include "core/objects/offset_set.h"
#include "core/objects/profile.h"

namespace erdwerk::operations {

using linework::Line3D;
using linework::ResolvedLine;

Result<std::vector<Line3D>> rowsOf(const Derived& seen, ObjectId line,
                                   const std::vector<linework::OffsetRow>& rows,
                                   const linework::OffsetOptions& options, ObjectId surface) {
    const auto* resolved = Derived::in(seen.lines, line);
    if (resolved == nullptr) return badInput("pick a line");
    if (rows.empty()) return badInput("type a row: its run, a comma and its height");
    std::vector<Line3D> out;
    ResolvedLine source = *resolved;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        auto row = derive::rowBeside(source, rows[r], options, seen.surface(surface), surface);
        if (!row) return badInput("row " + std::to_string(r + 1) + ": " + row.error().text);
        if (options.chained) source = linework::resolve(*row, surroundings(seen));
        out.push_back(std::move(*row));
    }
    return out;
}

Edit offsetRows(const Results& seen, ObjectId line, const std::vector<linework::OffsetRow>& rows,
                const linework::OffsetOptions& options, ObjectId surface, bool loose,
                const std::string& set) {
    return document::onlyWhileSame(seen->document, {line}, [=](const Document& document) -> Result<Edited> {
        auto made = rowsOf(*seen, line, rows, options, surface);
        if (!made) return tl::unexpected(made.error());
        const std::string name = document.nameOf(line);
        Document d = document;
        const auto groupOf = [&](std::size_t row) {
            const std::string wanted =
                set.empty() ? "Rows of " + name : set + " row " + std::to_string(row + 1);
            ObjectId group = d.byName<objects::Group>(wanted);
            if (!group) d = d.added(wanted, objects::Group{"#2C6E68"}, &group);
            return group;
        };
        ObjectId beside = line;
        for (std::size_t r = 0; r < made->size(); ++r) {
            objects::Line row{(*made)[r]};
            if (!loose) {
                objects::RowOf of{beside, rows[r], options, surface};
                of.options.chained = false;
                row.follows = std::make_shared<const objects::Follows>(std::move(of));
            }
            ObjectId id;
            const ObjectId group = groupOf(r);
            d = d.added(document::freshName<objects::Line>(d, name + " row"), std::move(row), &id, group);
            if (options.chained) beside = id;
        }
        return Edited(
            d, std::to_string(rows.size()) + (rows.size() == 1 ? " row" : " rows") + " beside " + name);
    });
}

Result<std::vector<Line3D>> meetingOf(const Derived& seen, ObjectId a, ObjectId b,
                                      const linework::MeetOptions& options) {
    const auto* first = Derived::in(seen.lines, a);
    const auto* second = Derived::in(seen.lines, b);
    if (first == nullptr || second == nullptr || a == b) return badInput("pick two different lines");
    return derive::meetingOf(*first, *second, options);
}

Edit meetLines(const Results& seen, ObjectId a, ObjectId b, const linework::MeetOptions& options,
               bool loose) {
    return document::onlyWhileSame(seen->document, {a, b}, [=](const Document& document) -> Result<Edited> {
        const auto parts = meetingOf(*seen, a, b, options);
        if (!parts) return tl::unexpected(parts.error());
        Document d = document;
        for (std::size_t i = 0; i < parts->size(); ++i) {
            objects::Line meeting{(*parts)[i]};
            if (!loose)
                meeting.follows =
                    std::make_shared<const objects::Follows>(objects::MeetingOf{a, b, options, i});
            d = d.added(document::freshName<objects::Line>(d, "Meeting"), std::move(meeting), nullptr,
                        document.find(a)->group);
        }
        return Edited(d, "Meet " + document.nameOf(a) + " and " + document.nameOf(b));
    });
}

Edit loosen(const Results& seen, const std::vector<ObjectId>& lines) {
    std::vector<ObjectId> of = lines;
    for (const ObjectId id : lines)
        if (const auto object = seen->document.find(id))
            for (const ObjectId named : objects::references(object->payload)) of.push_back(named);
    return document::onlyWhileSame(seen->document, of, [=](const Document& document) -> Result<Edited> {
        Document d = document;
        std::size_t count = 0;
        for (const ObjectId id : lines) {
            const auto* line = d.get<objects::Line>(id);
            const auto* now = Derived::in(seen->followed, id);
            const auto* resolved = Derived::in(seen->lines, id);
            if (line == nullptr || !line->follows || now == nullptr || resolved == nullptr) continue;
            Line3D own = now->line;
            // What can no longer follow keeps the heights that it had.
            if (!now->problem.empty())
                for (std::size_t i = 0; i < own.vertices.size(); ++i)
                    if (const auto height = resolved->vertices[i].lastHeight)
                        own.vertices[i].rule = linework::FixedHeight{*height};
            d = document::changed<objects::Line>(d, id, [&](objects::Line& l) {
                l.line = std::move(own);
                l.follows = nullptr;
            });
            ++count;
        }
        if (count == 0) return badInput("there is no line here that follows another");
        return d;
    });
}

Edit saveOffsetSet(const std::string& name, const objects::OffsetSet& set) {
    return [=](const Document& document) -> Result<Edited> {
        const std::string by(trimmed(name));
        if (by.empty()) return badInput("type a name for the set");
        if (set.rows.empty()) return badInput("type a row first");
        if (const ObjectId there = document.byName<objects::OffsetSet>(by))
            return Edited(document.withPayload(there, set), "Keep the rows as " + by);
        return Edited(document.added(by, set), "Keep the rows as " + by);
    };
}

Edit setTypedRows(ObjectId set, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* kept = document.get<objects::OffsetSet>(set);
        if (kept == nullptr) return badInput("the set is gone");
        objects::OffsetSet next = *kept;
        next.rows.clear();
        std::size_t at = 0;
        while (at <= text.size()) {
            const auto end = std::min(text.find(';', at), text.size());
            auto row = linework::parseOffsetRow(std::string(trimmed(text.substr(at, end - at))));
            if (!row) return tl::unexpected(row.error());
            next.rows.push_back(std::move(*row));
            at = end + 1;
        }
        return document.withPayload(set, std::move(next));
    };
}

Edit changeRow(ObjectId line, std::function<void(linework::OffsetRow&, linework::OffsetOptions&)> change) {
    return [line, change = std::move(change)](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr) return badInput("the line is gone");
        objects::Follows next;
        if (on->follows) next = *on->follows;
        if (auto* row = std::get_if<objects::RowOf>(&next); row != nullptr && on->follows)
            change(row->row, row->options);
        else if (auto* design = std::get_if<objects::DesignOf>(&next); design != nullptr && on->follows)
            change(design->row, design->options);
        else
            return badInput("this line is no row that follows another");
        return changed<objects::Line>(document, line, [&](objects::Line& l) {
            l.follows = std::make_shared<const objects::Follows>(std::move(next));
        });
    };
}

namespace {

Result<linework::OffsetRow> typedRow(const std::string& text, bool ofDesign) {
    auto row = linework::parseOffsetRow(std::string(trimmed(text)));
    if (row && ofDesign && row->height.by == linework::RowHeight::By::Surface)
        return badInput("a row of a design has its height from the design: 3,-2.5%");
    return row;
}

}  // namespace

Edit setTypedRow(ObjectId line, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr || !on->follows || std::holds_alternative<objects::MeetingOf>(*on->follows) ||
            objects::figureOf(*on) != nullptr)
            return badInput("this line is no row that follows another");
        const auto row = typedRow(text, std::holds_alternative<objects::DesignOf>(*on->follows));
        if (!row) return tl::unexpected(row.error());
        return changeRow(line,
                         [&](linework::OffsetRow& of, linework::OffsetOptions&) { of = *row; })(document);
    };
}

Edit lineOfDesign(const Results& seen, ObjectId profile, const std::string& text, bool right) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* p = document.get<objects::Profile>(profile);
        const auto* along = p == nullptr ? nullptr : Derived::in(seen->alignments, p->alignment);
        if (along == nullptr) return badInput("the profile is gone");
        const auto row = typedRow(text, true);
        if (!row) return tl::unexpected(row.error());
        objects::DesignOf of{profile, *row, {right}};
        const auto& design = derive::designOf(*p, Derived::in(seen->profiles, profile));
        auto made = derive::rowBesideDesign(*along, design, of);
        if (!made) return tl::unexpected(made.error());
        const bool middle = row->run == 0 && row->changes.empty();
        const std::string stem = document.nameOf(profile) + (middle ? " line" : (right ? " right" : " left"));
        objects::Line line{std::move(*made)};
        line.follows = std::make_shared<const objects::Follows>(std::move(of));
        return document.added(document::freshName<objects::Line>(document, stem), std::move(line));
    };
}

Edit linesBesideDesign(const Results& seen, ObjectId profile, const std::string& row) {
    return [=](const Document& document) -> Result<Edited> {
        auto left = lineOfDesign(seen, profile, row, false)(document);
        if (!left) return left;
        return lineOfDesign(seen, profile, row, true)(left->document);
    };
}

}  // namespace erdwerk::operations
