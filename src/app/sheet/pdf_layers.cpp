#include "app/sheet/pdf_layers.h"

#include <map>
#include <qpdf/Buffer.hh>
#include <qpdf/Pl_Buffer.hh>
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFPageObjectHelper.hh>
#include <qpdf/QPDFTokenizer.hh>
#include <qpdf/QPDFWriter.hh>
#include <set>

namespace erdwerk::app {

namespace {

/// Looks for an operator that leaves ink.
class Draws final : public QPDFObjectHandle::TokenFilter {
public:
    bool any = false;
    void handleToken(const QPDFTokenizer::Token& token) override {
        static const std::set<std::string> operators{"S",  "s",  "f",  "F", "f*", "B",  "B*", "b",
                                                     "b*", "Tj", "TJ", "'", "\"", "Do", "sh", "EI"};
        if (token.getType() == QPDFTokenizer::tt_word && operators.count(token.getValue()) != 0) any = true;
    }
};

class Layers {
public:
    explicit Layers(QPDF& pdf) : pdf_(pdf) {}
    QPDFObjectHandle of(const std::string& name) {
        const auto it = groups_.find(name);
        if (it != groups_.end()) return it->second;
        auto group = QPDFObjectHandle::newDictionary();
        group.replaceKey("/Type", QPDFObjectHandle::newName("/OCG"));
        group.replaceKey("/Name", QPDFObjectHandle::newUnicodeString(name));
        order_.push_back(pdf_.makeIndirectObject(group));
        groups_[name] = order_.back();
        return order_.back();
    }
    /// In the file's own list, in the order in which they came.
    void tell() {
        if (order_.empty()) return;
        const auto all = QPDFObjectHandle::newArray(order_);
        auto shown = QPDFObjectHandle::newDictionary();
        shown.replaceKey("/Order", all);
        shown.replaceKey("/ON", all);
        auto properties = QPDFObjectHandle::newDictionary();
        properties.replaceKey("/OCGs", all);
        properties.replaceKey("/D", shown);
        pdf_.getRoot().replaceKey("/OCProperties", properties);
    }

private:
    QPDF& pdf_;
    std::map<std::string, QPDFObjectHandle> groups_;
    std::vector<QPDFObjectHandle> order_;
};

/// Pages are written in whole points; the paper is not.
void cut(QPDFObjectHandle page, const LayeredPage& to) {
    if (!(to.width > 0)) return;
    auto box = page.getKey("/MediaBox");
    if (!box.isArray() || box.getArrayNItems() != 4) return;
    const double top = box.getArrayItem(3).getNumericValue();
    const double left = box.getArrayItem(0).getNumericValue();
    constexpr double points = 72 / 25.4;
    page.replaceKey(
        "/MediaBox",
        QPDFObjectHandle::newArray(std::vector{
            QPDFObjectHandle::newReal(left, 4), QPDFObjectHandle::newReal(top - to.height * points, 4),
            QPDFObjectHandle::newReal(left + to.width * points, 4), QPDFObjectHandle::newReal(top, 4)}));
}

/// The page as a form with a content of its own: the one that the library makes reads the page's only when it
/// is written, and by then the first page draws the forms.
QPDFObjectHandle formOf(QPDFPageObjectHelper& page) {
    auto form = page.getFormXObjectForPage();
    Pl_Buffer content("content");
    page.getObjectHandle().pipePageContents(&content);
    const auto data = content.getBufferSharedPointer();
    form.replaceStreamData(std::string(reinterpret_cast<const char*>(data->getBuffer()), data->getSize()),
                           QPDFObjectHandle::newNull(), QPDFObjectHandle::newNull());
    return form;
}

void lay(QPDF& pdf, Layers& layers, const std::vector<std::string>& names,
         std::vector<QPDFPageObjectHelper> parts) {
    auto forms = QPDFObjectHandle::newDictionary();
    auto properties = QPDFObjectHandle::newDictionary();
    std::map<std::string, std::string> keys;
    std::string content;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        Draws draws;
        parts[i].filterContents(&draws);
        if (!draws.any) continue;
        const std::string form = "/F" + std::to_string(i);
        forms.replaceKey(form, formOf(parts[i]));
        if (names[i].empty()) {
            content += form + " Do\n";
            continue;
        }
        const auto [key, fresh] = keys.try_emplace(names[i], "/L" + std::to_string(keys.size()));
        if (fresh) properties.replaceKey(key->second, layers.of(names[i]));
        content += "/OC " + key->second + " BDC " + form + " Do EMC\n";
    }
    auto resources = QPDFObjectHandle::newDictionary();
    resources.replaceKey("/XObject", forms);
    resources.replaceKey("/Properties", properties);
    auto page = parts.front().getObjectHandle();
    page.replaceKey("/Resources", resources);
    page.replaceKey("/Contents", pdf.newStream(content));
}

}  // namespace

Result<std::string> layPages(const std::string& bytes, const std::vector<LayeredPage>& pages) {
    try {
        QPDF pdf;
        pdf.processMemoryFile("sheets", bytes.data(), bytes.size());
        QPDFPageDocumentHelper document(pdf);
        const auto all = document.getAllPages();
        Layers layers(pdf);
        std::size_t next = 0;
        for (const auto& page : pages) {
            if (next + page.layers.size() > all.size()) return fail(ErrorCode::Io, "the pages are not whole");
            const auto first = all.begin() + static_cast<std::ptrdiff_t>(next);
            std::vector parts(first, first + static_cast<std::ptrdiff_t>(page.layers.size()));
            lay(pdf, layers, page.layers, parts);
            cut(parts.front().getObjectHandle(), page);
            for (std::size_t i = 1; i < parts.size(); ++i) document.removePage(parts[i]);
            next += page.layers.size();
        }
        layers.tell();
        QPDFWriter writer(pdf);
        writer.setOutputMemory();
        writer.setMinimumPDFVersion("1.5");
        writer.write();
        const auto buffer = writer.getBufferSharedPointer();
        return std::string(reinterpret_cast<const char*>(buffer->getBuffer()), buffer->getSize());
    } catch (const std::exception& e) {
        return fail(ErrorCode::Io, e.what());
    }
}

}  // namespace erdwerk::app
