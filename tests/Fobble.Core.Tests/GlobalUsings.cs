global using CsCheck;
global using Fobble.Core;
global using static Fobble.Core.Phrases;
global using Shouldly;
global using Xunit;
