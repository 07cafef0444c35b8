#pragma once
// Lines made of lines, which follow them until they are loosened.

#include "core/linework/meet.h"
#include "core/linework/offset.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

/// Rows beside a line, each a new line "NAME row 1", in a group "Rows of NAME"; rows of a set that is
/// kept by name each have a group, "SET row 1", for all lines they are made beside. They follow the line
/// (chained: each the row before), or stay as they are made. `surface` for rows that lie on one. BadInput
/// names the row of which nothing is left.
Edit offsetRows(const Results& seen, ObjectId line, const std::vector<linework::OffsetRow>& rows,
                const linework::OffsetOptions& options, ObjectId surface, bool loose = false,
                const std::string& set = {});
/// The rows as they would be; the Error names the row.
Result<std::vector<linework::Line3D>> rowsOf(const Derived& seen, ObjectId line,
                                             const std::vector<linework::OffsetRow>& rows,
                                             const linework::OffsetOptions& options, ObjectId surface);
/// A new line for each stretch where the slopes from two lines meet; it follows both, or stays as it is made.
Edit meetLines(const Results& seen, ObjectId a, ObjectId b, const linework::MeetOptions& options,
               bool loose = false);
/// The same without a document.
Result<std::vector<linework::Line3D>> meetingOf(const Derived& seen, ObjectId a, ObjectId b,
                                                const linework::MeetOptions& options);
/// Lines that follow others no longer do: they keep what they are now, or were last. BadInput when none does.
Edit loosen(const Results& seen, const std::vector<ObjectId>& lines);
/// Keeps rows by name; a set of that name gets these. BadInput without a name or rows.
Edit saveOffsetSet(const std::string& name, const objects::OffsetSet& set);
/// "0.3,-2%; 0,+0.12" as the rows of a saved set.
Edit setTypedRows(ObjectId set, const std::string& text);
/// A row that follows a line or a design, changed; BadInput for others.
Edit changeRow(ObjectId line, std::function<void(linework::OffsetRow&, linework::OffsetOptions&)> change);
/// Another run and height for a row that follows a line or a design: "0.5,-2%".
Edit setTypedRow(ObjectId line, const std::string& text);
/// A line on the design of a profile, or beside it ("3,-2.5%" with the side), that follows the design.
/// BadInput where there is no design, and for a height on a surface.
Edit lineOfDesign(const Results& seen, ObjectId profile, const std::string& row, bool right);
/// "3,-2.5%": rows on both sides of the design at once.
Edit linesBesideDesign(const Results& seen, ObjectId profile, const std::string& row);

}  // namespace erdwerk::operations
