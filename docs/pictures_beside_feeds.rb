# frozen_string_literal: true

# What belongs to Feeds besides lanes: a platform that is described, and somebody's microphone. Part of Pictures.
module PicturesBesideFeeds
  # What a made-up platform sends, and how it is described.
  FRAMES = <<~JSONL
    {"t":"said","d":{"key":"9f21","by":{"handle":"tern_and_cough","warden":false,"level":14},"words":"look up ~wren/12~","when":1764137642118}}
    {"t":"gave","d":{"by":{"handle":"Noctule"},"count":5,"key":"g1"}}
    {"t":"beat"}
    {"t":"unsaid","d":{"key":"9f21"}}
    {"t":"vote","d":{"title":"Which bird?","options":["wren","owl"]}}
  JSONL
  DESCRIBED = <<~JSON
    {
      "format": "bavard-platform/1",
      "key": "thicket",
      "name": "Thicket",
      "base": "https://thicket.example",
      "asks": { "room": { "label": "Room" } },
      "socket": {
        "at": "wss://thicket.example/live{?room}",
        "opens": [{ "t": "listen" }]
      },
      "reads": [
        {
          "is": "line",
          "when": "t == 'said'",
          "id": "d.key",
          "login": "d.by.handle",
          "text": "d.words",
          "time": "d.when"
        },
        {
          "is": "gift",
          "when": "t == 'gave'",
          "id": "d.key",
          "login": "d.by.handle",
          "number": "d.count"
        },
        {
          "is": "delete",
          "when": "t == 'unsaid'",
          "id": "d.key"
        },
        { "is": "nothing", "when": "t == 'beat'" }
      ]
    }
  JSON

  private

  def beside_feeds
    describe
    microphone
  end

  # A platform described beside what it sends; gone again afterwards.
  def describe
    station("/feeds/describe/?new", "[data-way]", nil)
    @browser.at_css("[data-way=socket]").click
    until_there("#editor-shown .json-name")
    type_into("#text", DESCRIBED)
    @browser.execute("document.querySelector('#paste').click(); document.querySelector('#paste-text').value = arguments[0]", FRAMES)
    until_there("#paste-sheet[open]")
    @browser.execute("document.querySelector('#paste-form').requestSubmit()")
    until_there(".frame.unread")
    @browser.execute("document.querySelector('.frame-pin').click()")
    until_there(".frame.pinned")
    sleep 1
    shot("describe")
    2.times { @browser.execute("document.querySelector('#remove').click()") }
    sleep 1
  end

  # Somebody's microphone, heard.
  def microphone
    station("/feeds", ".lane-line", nil)
    path = @browser.evaluate_async(<<~JS, 10)
      const headers = { "X-CSRF-Token": document.querySelector("meta[name=csrf]").content, "X-Requested-With": "XMLHttpRequest" };
      fetch("/feeds/microphones/mine", { method: "POST", headers }).then((answer) => answer.json()).then((told) => arguments[0](told.path));
    JS
    @browser.go_to("#{@address}#{path}")
    @browser.at_css("#on").click
    until_there("#face[data-state=talks]")
    sleep 0.02 until @browser.evaluate("document.querySelector('#bar').getBoundingClientRect().width") > 40
    shot("microphone")
  end
end
